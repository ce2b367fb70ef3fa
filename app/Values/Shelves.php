<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Bytes\Fence;

/** All shelves that the owner opened, by configuration. */
final readonly class Shelves
{
    /** @param  list<Shelf>  $all */
    private function __construct(public array $all) {}

    /** @param  string  $setting NAME=PATH, several separated by colons */
    public static function fromSetting(string $setting): self
    {
        $shelves = [];
        foreach (array_filter(explode(':', $setting)) as $entry) {
            [$name, $path] = str_contains($entry, '=') ? explode('=', $entry, 2) : [basename($entry), $entry];
            if (is_dir($path)) {
                $shelves[] = new Shelf($name, $path);
            }
        }

        return new self($shelves);
    }

    /** From here on nothing is opened that leads out of a shelf, by this process or those that it begins. */
    public function fence(): void
    {
        Fence::around(array_map(fn (Shelf $shelf): string => $shelf->root, $this->all));
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
