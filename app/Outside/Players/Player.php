<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Files\Shelf;

/** One player that is plugged in. */
final readonly class Player
{
    /** The file that describes it. */
    public const DESCRIPTION = 'player.json';

    private const MOST_FILES = 20_000;

    /**
     * @param  string  $name  as its folder is called
     * @param  ?PlayerBody  $body  null where its description cannot be read
     */
    public function __construct(public string $name, public string $root, public ?PlayerBody $body) {}

    public function title(): string
    {
        return $this->body->destination->title ?? $this->name;
    }

    /** The word for programs under which its destination is known. */
    public static function word(string $name): string
    {
        $plain = trim((string) preg_replace('/[^a-z0-9]+/', '-', strtolower($name)), '-');

        return 'player-'.substr($plain === '' ? hash('crc32b', $name) : $plain, 0, 48);
    }

    /** Where sound goes. */
    public function folder(): string
    {
        return $this->root.(($this->body->folder ?? '') === '' ? '' : '/'.$this->body?->folder);
    }

    /** Its sound, as a shelf that results may be put on. */
    public function shelf(): Shelf
    {
        return new Shelf($this->shelfName(), $this->folder(), true, true);
    }

    /** What its shelf is called: no shelf of the machine's owner is called so. */
    public function shelfName(): string
    {
        return 'Player '.$this->name;
    }

    /** @return array<string, int> bytes of each file on it, by its path from the root, in the order of paths */
    public function files(): array
    {
        $files = [];
        try {
            $all = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($this->root, \FilesystemIterator::SKIP_DOTS),
                \RecursiveIteratorIterator::LEAVES_ONLY, \RecursiveIteratorIterator::CATCH_GET_CHILD);
            foreach ($all as $file) {
                if ($file instanceof \SplFileInfo && $file->isFile() && ! $file->isLink() && count($files) < self::MOST_FILES) {
                    $files[substr($file->getPathname(), strlen($this->root) + 1)] = (int) $file->getSize();
                }
            }
        } catch (\UnexpectedValueException) {
            // It was pulled out meanwhile.
            return [];
        }
        unset($files[self::DESCRIPTION]);
        ksort($files, SORT_NATURAL);

        return $files;
    }

    /** Bytes that it holds in all. */
    public function capacity(): int
    {
        return $this->body->capacity ?? 0;
    }

    /**
     * Bytes that still fit.
     *
     * @param  ?array<string, int>  $files  that are on it, as {@see self::files()} gave them; null where nobody has looked yet
     */
    public function free(?array $files = null): int
    {
        return max(0, $this->capacity() - array_sum($files ?? $this->files()));
    }
}
