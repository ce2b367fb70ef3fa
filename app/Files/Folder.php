<?php

declare(strict_types=1);

namespace App\Files;

/**
 * Folders and files that are made here. What lies in the home is its owner's alone; what is put anywhere else takes what its folder gives
 * its own files: the umask of whoever started Octavox, the group of the folder (setgid), its default ACL.
 */
final class Folder
{
    private const TRIES = 10;

    /**
     * Makes a folder where there is none; another process may be making the same one.
     *
     * @throws \RuntimeException where it cannot be made
     */
    public static function ready(string $path): void
    {
        self::as($path, function () use ($path): void {
            for ($try = 0; ! is_dir($path); $try++) {
                // Of two that make the same one, one is told that it is there already.
                if (! @mkdir($path, 0777, true) && $try >= self::TRIES) {
                    throw new \RuntimeException("The folder $path cannot be made.");
                }
                clearstatcache(true, $path);
            }
        });
    }

    /**
     * Puts a text into a file, at once or not at all.
     *
     * @throws \RuntimeException where it cannot be written
     */
    public static function write(string $path, string $text): void
    {
        self::as($path, function () use ($path, $text): void {
            $beside = dirname($path).'/.'.bin2hex(random_bytes(8)).'.part';
            $handle = @fopen($beside, 'xb');
            $isWritten = $handle !== false && fwrite($handle, $text) === strlen($text) && fflush($handle) && fclose($handle);
            if (! $isWritten || ! @rename($beside, $path)) {
                @unlink($beside);
                throw new \RuntimeException("The file $path cannot be written.");
            }
        });
    }

    /**
     * @template T
     *
     * @param  string  $path  where something is put
     * @param  callable(): T  $do
     * @return T
     */
    public static function as(string $path, callable $do): mixed
    {
        $before = umask(self::isInHome($path) ? 0077 : config()->integer('octavox.umask'));
        try {
            return $do();
        } finally {
            umask($before);
        }
    }

    private static function isInHome(string $path): bool
    {
        return str_starts_with($path.'/', config()->string('octavox.home').'/');
    }
}
