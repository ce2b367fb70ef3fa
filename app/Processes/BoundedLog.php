<?php

declare(strict_types=1);

namespace App\Processes;

use App\Files\Folder;

/** A log below the home's logs that never grows beyond a bound: what is older than its second half goes. */
final class BoundedLog
{
    private const MOST_BYTES = 1 << 20;

    /** @param  string  $name  of the file */
    public static function add(string $name, string $text): void
    {
        $folder = config()->string('octavox.home').'/logs';
        Folder::ready($folder);
        self::bound("$folder/$name");
        @file_put_contents("$folder/$name", $text."\n", FILE_APPEND);
    }

    /** Leaves of a log that is too long its last half. */
    public static function bound(string $path): void
    {
        clearstatcache(true, $path);
        if ((int) @filesize($path) > self::MOST_BYTES) {
            @file_put_contents($path.'.new', (string) @file_get_contents($path, offset: (int) filesize($path) - intdiv(self::MOST_BYTES,
                2)));
            @rename($path.'.new', $path);
        }
    }
}
