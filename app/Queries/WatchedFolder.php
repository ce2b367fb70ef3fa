<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\StandingOrder;
use App\Values\OutsideShelf;
use App\Values\Shelf;
use App\Values\Shelves;
use App\Values\WatchedFile;

/**
 * What lies in the folder of a standing order. Folders in which nothing was added, taken away or renamed are not looked through again, so
 * that watching thousands of files costs next to nothing.
 */
final class WatchedFolder
{
    private const MOST_FILES = 20_000;

    private const DEEPEST = 20;

    /** @var array<string, array{int, list<string>, list<string>}> by folder: when it was changed, folders and files in it */
    private array $known = [];

    /** @throws OutsideShelf where it is not there, or not on the shelf any more */
    public function shelf(StandingOrder $standing): Shelf
    {
        $shelf = app(Shelves::class)->named($standing->shelf) ?? throw new OutsideShelf('Its shelf is not open any more.');
        if (! is_dir($shelf->resolve($standing->folder))) {
            throw new OutsideShelf('What it watches is no folder.');
        }

        return $shelf;
    }

    /**
     * @return list<WatchedFile>
     *
     * @throws OutsideShelf where it is not there, or not on the shelf any more
     */
    public function files(StandingOrder $standing): array
    {
        $root = $this->shelf($standing)->resolve($standing->folder);
        $files = [];
        clearstatcache();
        $this->collect($root, '', $standing->nested ? self::DEEPEST : 0, $files);

        return $files;
    }

    /** @param  list<WatchedFile>  $files */
    private function collect(string $root, string $within, int $deeper, array &$files): void
    {
        [$folders, $names] = $this->entries($within === '' ? $root : "$root/$within");
        foreach ($names as $name) {
            $path = ltrim("$within/$name", '/');
            $facts = @lstat("$root/$path");
            // Links lead who knows where.
            if ($facts !== false && ($facts['mode'] & 0170000) === 0100000 && count($files) < self::MOST_FILES) {
                $files[] = new WatchedFile($path, "$root/$path", $facts['dev'].':'.$facts['ino'], $facts['size'], $facts['mtime']);
            }
        }
        foreach ($deeper > 0 ? $folders : [] as $folder) {
            $this->collect($root, ltrim("$within/$folder", '/'), $deeper - 1, $files);
        }
    }

    /** @return array{list<string>, list<string>} names of folders and of everything else; hidden ones are left out */
    private function entries(string $folder): array
    {
        $changed = (int) @filemtime($folder);
        if (isset($this->known[$folder]) && $this->known[$folder][0] === $changed) {
            return [$this->known[$folder][1], $this->known[$folder][2]];
        }
        unset($this->known[$folder]);
        $folders = $names = [];
        foreach (@scandir($folder) ?: [] as $name) {
            if (! str_starts_with($name, '.') && mb_check_encoding($name, 'UTF-8')) {
                is_dir("$folder/$name") && ! is_link("$folder/$name") ? $folders[] = $name : $names[] = $name;
            }
        }
        // What was changed in this very second may be changed in it once more, and nobody could tell.
        if ($changed < time() - 1) {
            $this->known[$folder] = [$changed, $folders, $names];
        }

        return [$folders, $names];
    }
}
