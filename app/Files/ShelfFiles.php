<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Reading\FolderRecordings;
use Octavox\Core\Reading\Playlist;
use Octavox\Core\Reading\UsualExtensions;

/**
 * Which files of a shelf are meant: those that are named, of a folder all recordings in it and below, of a playlist those that it names.
 */
final class ShelfFiles
{
    private const MOST = 20_000;

    private const DEEPEST = 30;

    /**
     * @param  array<array-key, string>  $paths  on the shelf
     * @param  bool  $isWhole  whether also what belongs to a recording and is none by itself is meant, as where all is copied
     * @return MeantFiles in the order in which they were named
     *
     * @throws OutsideShelf where something named is not there
     */
    public function find(Shelf $shelf, array $paths, bool $isWhole = false): MeantFiles
    {
        $files = $missing = [];
        $addresses = 0;
        foreach ($paths as $path) {
            $path = trim($path, '/');
            $real = $shelf->resolve($path);
            if (is_dir($real)) {
                $this->collect($shelf, $path, self::DEEPEST, $isWhole, $files);
            } elseif (is_file($real) && Playlist::isOne($path)) {
                $list = Playlist::read($real);
                $addresses += $list->addresses;
                foreach ($list->names as $name) {
                    $named = $this->named($shelf, dirname($path), $name);
                    $named === null ? $missing[] = $name : $files[$named] = $shelf->resolve($named);
                }
            } elseif (is_file($real) && count($files) < self::MOST) {
                $files[$path] = $real;
            }
        }

        return new MeantFiles(array_slice($files, 0, self::MOST, true), $missing, $addresses);
    }

    /** @return ?string the path on the shelf of what a playlist names; null where that leads to no file of it */
    private function named(Shelf $shelf, string $folder, string $name): ?string
    {
        $root = rtrim((string) realpath($shelf->root), '/').'/';
        $path = str_starts_with($name, '/') ? $name : $root.($folder === '.' ? '' : $folder.'/').$name;
        $parts = [];
        foreach (explode('/', $path) as $part) {
            if ($part === '..') {
                array_pop($parts);
            } elseif ($part !== '' && $part !== '.') {
                $parts[] = $part;
            }
        }
        $path = '/'.implode('/', $parts);
        if (! str_starts_with($path, $root)) {
            return null;
        }
        try {
            $relative = substr($path, strlen($root));

            return is_file($shelf->resolve($relative)) ? $relative : null;
        } catch (OutsideShelf) {
            return null;
        }
    }

    /** @param  array<array-key, string>  $files */
    private function collect(Shelf $shelf, string $folder, int $deeper, bool $isWhole, array &$files): void
    {
        $entries = $shelf->entries($folder);
        $names = array_filter($entries, fn (ShelfEntry $entry): bool => ! $entry->isFolder);
        $recordings = FolderRecordings::of($shelf->resolve($folder),
            array_values(array_map(fn (ShelfEntry $entry): string => $entry->name, $names)));
        foreach ($entries as $entry) {
            $belongs = ! $entry->isFolder && $recordings->before($entry->name) !== null;
            if ($belongs && ! $isWhole) {
                continue;
            }
            if ($entry->isFolder && $deeper > 0 && ! is_link($shelf->root.'/'.$entry->path)) {
                $this->collect($shelf, $entry->path, $deeper - 1, $isWhole, $files);
            } elseif (! $entry->isFolder && count($files) < self::MOST
                && ($belongs || UsualExtensions::isAny(pathinfo($entry->name, PATHINFO_EXTENSION)))) {
                $files[$entry->path] = $entry->real;
            }
        }
    }
}
