<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Name\NumberedName;

/** Moves a file back to where it was. */
final class RestoreFile
{
    private const MOST_NUMBERS = 1000;

    /** @return ?string its path: its own, or where that is taken by now one with a number; null where it cannot be moved */
    public static function to(string $from, string $path): ?string
    {
        $folder = dirname($path);
        Folder::ready($folder);
        for ($number = 1; $number < self::MOST_NUMBERS; $number++) {
            $to = $folder.'/'.NumberedName::write(basename($path), $number);
            // A link is made in one step, and only where nothing is.
            if (! file_exists($to) && (@link($from, $to) ? unlink($from) : @rename($from, $to))) {
                return $to;
            }
        }

        return null;
    }
}
