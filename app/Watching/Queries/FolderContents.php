<?php

declare(strict_types=1);

namespace App\Watching\Queries;

use App\Files\OutsideShelf;
use App\Files\Shelf;
use App\Files\Shelves;
use App\Watching\Models\WatchedFolder;
use App\Watching\Values\WatchedFile;
use Octavox\Core\Bytes\FolderWatch;
use Octavox\Core\Reading\FolderRecordings;

/**
 * What lies in the folder of a standing order. Folders in which nothing was added, taken away or renamed are not looked through again, so
 * that watching thousands of files costs next to nothing.
 */
final class FolderContents
{
    private const MOST_FILES = 20_000;

    private const DEEPEST = 20;

    /** Seconds after which a folder is looked through though nothing was told of it: a network drive may say nothing. */
    private const SECONDS_BETWEEN_LOOKS = 30;

    private readonly FolderWatch $events;

    /**
     * @var array<int, array{string, bool, int}> folder of each standing order, whether with those below it, and when it was looked through
     */
    private array $looked = [];

    /** @var array<string, array{int, list<string>, list<string>}> by folder: when it was changed, folders and files in it */
    private array $known = [];

    public function __construct()
    {
        $this->events = new FolderWatch;
    }

    /** Waits until something happens in a folder that was looked through, or the time is over. */
    public function wait(float $seconds): void
    {
        $until = microtime(true) + $seconds;
        $this->note($this->events->wait($seconds));
        if (microtime(true) < $until && $this->looked !== []) {
            // What has begun to arrive comes in many pieces; they are looked at together.
            usleep((int) (min(0.5, max(0.0, $until - microtime(true))) * 1e6));
        }
    }

    /** Whether anything can be there that was not there at the last look. */
    public function isStirred(WatchedFolder $standing): bool
    {
        $this->note($this->events->wait(0));
        if ($this->events->hasLost()) {
            $this->looked = [];
        }
        try {
            $root = $this->shelf($standing)->resolve($standing->folder);
        } catch (OutsideShelf) {
            return true;
        }

        [$looked, $nested, $at] = $this->looked[$standing->id] ?? ['', false, 0];

        return $looked !== $root || $nested !== $standing->nested || $at < time() - self::SECONDS_BETWEEN_LOOKS;
    }

    /** @param  list<string>  $touched */
    private function note(array $touched): void
    {
        foreach ($touched as $path) {
            $this->looked = array_filter($this->looked, fn (array $one): bool => $path !== $one[0]
                && ! str_starts_with($path, $one[0].'/'));
        }
    }

    /** @throws OutsideShelf where it is not there, or not on the shelf any more */
    public function shelf(WatchedFolder $standing): Shelf
    {
        $shelf = app(Shelves::class)->named($standing->shelf) ?? throw new OutsideShelf('Its shelf is no longer open.');
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
    public function files(WatchedFolder $standing): array
    {
        $root = $this->shelf($standing)->resolve($standing->folder);
        $files = [];
        clearstatcache();
        $began = time();
        $isTold = $this->collect($root, '', $standing->nested ? self::DEEPEST : 0, $files);
        unset($this->looked[$standing->id]);
        if ($isTold) {
            $this->looked[$standing->id] = [$root, $standing->nested, $began];
        }

        return $files;
    }

    /**
     * @param  list<WatchedFile>  $files
     * @return bool whether changes are told from here on, in this folder and in those that were looked through below it
     */
    private function collect(string $root, string $within, int $deeper, array &$files): bool
    {
        $isTold = $this->events->watch(rtrim("$root/$within", '/'));
        $folder = $within === '' ? $root : "$root/$within";
        [$folders, $names] = $this->entries($folder);
        $all = array_filter(array_combine($names, array_map(fn (string $name): array => @lstat("$folder/$name") ?: [], $names)),
            // Links lead who knows where.
            fn (array $facts): bool => ($facts['mode'] ?? 0) !== 0 && ($facts['mode'] & 0170000) === 0100000);
        $recordings = FolderRecordings::of($folder, array_map(strval(...), array_keys($all)));
        foreach (array_slice($all, 0, max(0, self::MOST_FILES - count($files)), true) as $name => $facts) {
            // A disc, or a sheet, has arrived once all has that belongs to it.
            $parts = [$facts, ...array_map(fn (string $part): array => $all[$part], $recordings->parts((string) $name))];
            $files[] = new WatchedFile(ltrim("$within/$name", '/'), "$folder/$name", $facts['dev'].':'.$facts['ino'],
                array_sum(array_column($parts, 'size')), max(array_column($parts, 'mtime')), $recordings->says((string) $name));
        }
        foreach ($deeper > 0 ? $folders : [] as $folder) {
            $isTold = $this->collect($root, ltrim("$within/$folder", '/'), $deeper - 1, $files) && $isTold;
        }

        return $isTold;
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
