<?php

declare(strict_types=1);

namespace App\Queries;

use App\Values\OutsideShelf;
use App\Values\Shelf;
use Octavox\Core\Reading\UsualExtensions;

/** Which files of a shelf are meant: those that are named, and of a folder that is named all recordings in it and below. */
final class ShelfFiles
{
    private const MOST = 20_000;

    private const DEEPEST = 30;

    /**
     * @param  array<array-key, string>  $paths  on the shelf
     * @return array<string, string> real paths, by the path on the shelf, in the order in which they were named
     *
     * @throws OutsideShelf where something named is not there
     */
    public function of(Shelf $shelf, array $paths): array
    {
        $files = [];
        foreach ($paths as $path) {
            $path = trim($path, '/');
            $real = $shelf->resolve($path);
            if (is_dir($real)) {
                $this->collect($shelf, $path, self::DEEPEST, $files);
            } elseif (is_file($real) && count($files) < self::MOST) {
                $files[$path] = $real;
            }
        }

        return array_map(strval(...), $files);
    }

    /** @param  array<array-key, string>  $files */
    private function collect(Shelf $shelf, string $folder, int $deeper, array &$files): void
    {
        foreach ($shelf->entries($folder) as $entry) {
            if ($entry->isFolder && $deeper > 0 && ! is_link($shelf->root.'/'.$entry->path)) {
                $this->collect($shelf, $entry->path, $deeper - 1, $files);
            } elseif (! $entry->isFolder && count($files) < self::MOST
                && UsualExtensions::isAny(pathinfo($entry->name, PATHINFO_EXTENSION))) {
                $files[$entry->path] = $entry->real;
            }
        }
    }
}
