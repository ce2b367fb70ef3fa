<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Reading\FolderRecordings;

/** A file or folder on a shelf. */
final readonly class ShelfEntry
{
    public function __construct(public string $name, public string $path, public bool $isFolder, public int $bytes,
        public string $real = '') {}

    /** Whether it may be a disc, by its name: an image, a sheet, or the first file of a folder. */
    public function isDisc(): bool
    {
        return ! $this->isFolder && (in_array(strtolower(pathinfo($this->name, PATHINFO_EXTENSION)), ['iso', 'img', 'udf'], true)
            || FolderRecordings::mayStandForOthers($this->name));
    }
}
