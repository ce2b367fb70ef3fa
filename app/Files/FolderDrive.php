<?php

declare(strict_types=1);

namespace App\Files;

/** The drive that a folder lies on, or will lie on once it is made. */
final class FolderDrive
{
    /** The nearest folder on the way that is there. */
    public static function there(string $folder): string
    {
        while ($folder !== dirname($folder) && ! is_dir($folder)) {
            $folder = dirname($folder);
        }

        return $folder;
    }

    /** The same for all that lies on one drive; 0 where nothing is there. */
    public static function number(string $path): int
    {
        clearstatcache(true, $path);

        $facts = @stat($path);

        return $facts === false ? 0 : $facts['dev'];
    }
}
