<?php

declare(strict_types=1);

namespace App\Values;

/** A file or folder on a shelf. */
final readonly class ShelfEntry
{
    public function __construct(public string $name, public string $path, public bool $isFolder, public int $bytes,
        public string $real = '') {}
}
