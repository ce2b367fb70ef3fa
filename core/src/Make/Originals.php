<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Reading\FolderRecordings;

/** The sources that no result may take the place of, known by device and inode, so that no link or spelling hides one. */
final readonly class Originals
{
    /** @param  array<string, true>  $files  device and inode of each */
    public function __construct(private array $files = []) {}

    /** @param  iterable<string>  $paths  those that are not there are left out */
    public static function of(iterable $paths): self
    {
        $files = [];
        foreach ($paths as $path) {
            // What lies behind a sheet or the first file of a disc is a source as well.
            foreach ([$path, ...FolderRecordings::behind($path)] as $one) {
                $file = self::identity($one);
                if ($file !== null) {
                    $files[$file] = true;
                }
            }
        }

        return new self($files);
    }

    /** Whether a file of that path is one of them, under whatever name. */
    public function hold(string $path): bool
    {
        $file = self::identity($path);

        return $file !== null && isset($this->files[$file]);
    }

    private static function identity(string $path): ?string
    {
        clearstatcache(true, $path);
        $facts = @stat($path);

        return $facts === false ? null : $facts['dev'].':'.$facts['ino'];
    }
}
