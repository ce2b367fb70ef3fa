<?php

declare(strict_types=1);

namespace App\Sources\Recorders;

use App\Files\Shelf;
use App\Sources\Models\CopiedFolder;

/** One recorder that is plugged in. */
final readonly class Recorder
{
    /** @param  string  $folder  where its files are */
    public function __construct(public string $name, private string $folder) {}

    /** Its files, as if they lay on a shelf that nothing is written on. */
    public function files(): Shelf
    {
        return new Shelf($this->shelf(), $this->folder);
    }

    /** What its shelf is called. */
    public function shelf(): string
    {
        return CopiedFolder::RECORDER.$this->name;
    }
}
