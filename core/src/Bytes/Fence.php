<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/**
 * Folders that must not be left: what is named by a path below one of them must in truth lie below it, whatever links lead there now.
 * They are set by the environment variable OCTAVOX_WITHIN, real paths with colons between, so that every process of a work has them.
 */
final class Fence
{
    private const VARIABLE = 'OCTAVOX_WITHIN';

    /** @param  list<string>  $folders */
    public static function around(array $folders): void
    {
        putenv(self::VARIABLE.'='.implode(':', array_filter(array_map(realpath(...), $folders), is_string(...))));
    }

    /** @return array<string, string> what a process must be begun with so that it does not leave them either */
    public static function environment(): array
    {
        return [self::VARIABLE => (string) getenv(self::VARIABLE)];
    }

    /** Whether a folder that is there, or is to be made, lies where its path says: no folder on its way leads out. */
    public static function holdsFolder(string $path): bool
    {
        $there = $path;
        while (! is_dir($there) && ! is_link($there) && $there !== dirname($there)) {
            $there = dirname($there);
        }
        $real = realpath($there);
        foreach (array_filter(explode(':', (string) getenv(self::VARIABLE))) as $folder) {
            $isNamed = $path === $folder || str_starts_with($path, $folder.'/');
            if ($isNamed && ($real === false || $real !== $folder && ! str_starts_with($real, $folder.'/'))) {
                return false;
            }
        }

        return true;
    }

    /**
     * Judged on what was opened: between the look at a path and its opening a link may change.
     *
     * @param  resource  $handle  the file as it was opened by this path
     */
    public static function holds(string $path, mixed $handle): bool
    {
        foreach (array_filter(explode(':', (string) getenv(self::VARIABLE))) as $folder) {
            if (! str_starts_with($path, $folder.'/')) {
                continue;
            }
            clearstatcache(true);
            $real = realpath($path);
            if ($real === false || ! str_starts_with($real, $folder.'/')) {
                return false;
            }
            $opened = fstat($handle);
            $seen = @stat($real);
            if ($opened === false || $seen === false || $opened['dev'] !== $seen['dev'] || $opened['ino'] !== $seen['ino']) {
                return false;
            }
        }

        return true;
    }
}
