<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Bytes\Fence;

/** All shelves that the owner opened: by the environment, and on the page of settings. */
final readonly class Shelves
{
    /** @param  list<Shelf>  $all */
    private function __construct(public array $all) {}

    /**
     * @param  string  $setting  NAME=PATH, several separated by colons
     * @param  string  $writable  names of those that results may be put on, separated by colons
     */
    public static function fromSetting(string $setting, string $writable = ''): self
    {
        $shelves = [];
        $open = explode(':', $writable);
        foreach (array_filter(explode(':', $setting)) as $entry) {
            [$name, $path] = str_contains($entry, '=') ? explode('=', $entry, 2) : [basename($entry), $entry];
            if (is_dir($path)) {
                $shelves[] = new Shelf($name, $path, in_array($name, $open, true));
            }
        }

        return new self($shelves);
    }

    /** @param  list<Shelf>  $more  those whose name is taken, or whose folder is gone, are left out */
    public function with(array $more): self
    {
        $all = $this->all;
        foreach ($more as $shelf) {
            if (is_dir($shelf->root) && (new self($all))->named($shelf->name) === null) {
                $all[] = $shelf;
            }
        }

        return new self($all);
    }

    /** From here on nothing is opened that leads out of a shelf, by this process or those that it begins. */
    public function fence(): void
    {
        Fence::around(array_map(fn (Shelf $shelf): string => $shelf->root, $this->all));
    }

    /** @return list<Shelf> those that stay: folders that the owner opened */
    public function lasting(): array
    {
        return array_values(array_filter($this->all, fn (Shelf $shelf): bool => ! $shelf->isPlugged));
    }

    /** @return list<Shelf> those that results may be put on */
    public function writable(): array
    {
        return array_values(array_filter($this->all, fn (Shelf $shelf): bool => $shelf->isWritable));
    }

    /** The shelf on which a path lies. */
    public function holding(string $path): ?Shelf
    {
        foreach ($this->all as $shelf) {
            if (str_starts_with($path, rtrim((string) realpath($shelf->root), '/').'/')) {
                return $shelf;
            }
        }

        return null;
    }

    public function named(string $name): ?Shelf
    {
        foreach ($this->all as $shelf) {
            if ($shelf->name === $name) {
                return $shelf;
            }
        }

        return null;
    }
}
