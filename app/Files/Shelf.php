<?php

declare(strict_types=1);

namespace App\Files;

/** A folder of the machine that its owner opened to Octavox. Nothing outside it is ever reached. */
final readonly class Shelf
{
    private const LONGEST_PATH = 4000;

    /**
     * @param  bool  $isWritable  whether its owner lets results be put there
     * @param  bool  $isPlugged  whether it is a player, and goes again
     */
    public function __construct(public string $name, public string $root, public bool $isWritable = false,
        public bool $isPlugged = false) {}

    /**
     * The real path of something on the shelf.
     *
     * @param  string  $relative  with slashes, empty for the shelf itself
     *
     * @throws OutsideShelf for whatever is not below the shelf once all links are followed, or is not there
     */
    public function resolve(string $relative): string
    {
        if (strlen($relative) > self::LONGEST_PATH || str_contains($relative, "\0") || ! mb_check_encoding($relative, 'UTF-8')) {
            throw new OutsideShelf('This is not a path on a shelf.');
        }
        if (array_intersect(explode('/', str_replace('\\', '/', $relative)), ['..', '.']) !== []) {
            throw new OutsideShelf('A shelf is only open downwards.');
        }
        $root = realpath($this->root);
        $real = realpath($this->root.'/'.$relative);
        $real = $real === false ? realpath($this->root.'/'.ShelfName::bytes($relative)) : $real;
        if ($root === false || $real === false) {
            throw new OutsideShelf('This is no longer on the shelf.');
        }
        if ($real !== $root && ! str_starts_with($real, rtrim($root, '/').'/')) {
            throw new OutsideShelf('This leads out of the shelf, so it stays closed.');
        }

        return $real;
    }

    /** @return list<ShelfEntry> folders first, then files, by name; hidden ones and links out are left out */
    public function entries(string $relative): array
    {
        $folder = $this->resolve($relative);
        $entries = [];
        foreach (is_dir($folder) ? (scandir($folder) ?: []) : [] as $name) {
            $path = ltrim($relative.'/'.ShelfName::written($name), '/');
            if (str_starts_with($name, '.')) {
                continue;
            }
            try {
                $real = $this->resolve($path);
            } catch (OutsideShelf) {
                continue;
            }
            $isFolder = is_dir($real);
            $entries[] = new ShelfEntry($name, $path, $isFolder, $isFolder ? 0 : (int) filesize($real), $real);
        }
        usort($entries, fn (ShelfEntry $a, ShelfEntry $b): int => [$b->isFolder, strtolower($a->name)] <=> [$a->isFolder,
            strtolower($b->name)]);

        return $entries;
    }
}
