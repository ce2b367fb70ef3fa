<?php

declare(strict_types=1);

namespace App\Files;

/** The folders of one place, each of which stands for something that is plugged in. */
final class PluggedFolders
{
    private const LONGEST_NAME = 80;

    /** Whether a name can be that of such a folder, and leads nowhere else. */
    public static function isName(string $name): bool
    {
        return $name !== '' && ! str_starts_with($name, '.') && preg_match('~[/\x00]~', $name) !== 1
            && mb_check_encoding($name, 'UTF-8') && strlen($name) <= self::LONGEST_NAME;
    }

    /**
     * What stands there, by name.
     *
     * @template T of object
     *
     * @param  int  $most  that are looked for
     * @param  \Closure(string): ?T  $named  null where a name is none
     * @return list<T>
     */
    public static function all(string $folder, int $most, \Closure $named): array
    {
        $found = [];
        foreach (@scandir($folder) ?: [] as $name) {
            $one = count($found) < $most ? $named($name) : null;
            if ($one !== null) {
                $found[] = $one;
            }
        }

        return $found;
    }
}
