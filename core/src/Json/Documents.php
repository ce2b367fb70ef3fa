<?php

declare(strict_types=1);

namespace Octavox\Core\Json;

use Octavox\Core\Failure;

/** Folders of JSON documents, each in a file that is called as the document is. */
final class Documents
{
    /** Bytes of the largest that is read. */
    private const MOST_BYTES = 1_000_000;

    /**
     * What documents tell, those that ship and those that people made; of the latter one that cannot be read is left out.
     *
     * @template T
     *
     * @param  \Closure(string): T  $read
     * @param  ?string  $own  folder of those that people made
     * @return array<string, T> by name, in the order of these
     *
     * @throws Failure where one that ships cannot be read
     */
    public static function read(\Closure $read, string $shipped, ?string $own = null): array
    {
        $found = array_map($read, self::in($shipped));
        foreach ($own === null ? [] : self::in($own) as $name => $text) {
            try {
                $found += [$name => $read($text)];
            } catch (Failure) {
                continue;
            }
        }
        ksort($found);

        return $found;
    }

    /** @return array<string, string> the text of each document by its name, in the order of these; of one name that of the first folder */
    public static function in(string ...$folders): array
    {
        $found = [];
        foreach ($folders as $folder) {
            foreach (glob(addcslashes($folder, '*?[\\').'/*.json') ?: [] as $path) {
                $text = @file_get_contents($path, length: self::MOST_BYTES);
                $found += $text === false ? [] : [basename($path, '.json') => $text];
            }
        }
        ksort($found);

        return $found;
    }
}
