<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Sources\Models\CopiedFolder;

/** A recorder that is plugged in, as its page shows it. */
final readonly class PluggedRecorder
{
    /**
     * @param  int  $files  recordings on it
     * @param  int  $new  those that no source holds yet
     * @param  int  $unchecked  those of a name, size and date that were copied in, whose content was not compared since it was plugged in
     */
    public function __construct(public string $name, public int $files, public int $new, public int $unchecked, public int $bytes,
        public ?CopiedFolder $copy) {}

    /** Whether every recording on it has a source. */
    public function isAllHere(): bool
    {
        return $this->new + $this->unchecked === 0;
    }

    public function isCopying(): bool
    {
        return $this->copy?->state === CopiedFolder::COPYING;
    }

    /** What became of the last copy; empty where there was none. */
    public function says(): string
    {
        return match (true) {
            $this->copy === null => '',
            $this->isCopying() => sprintf('%d of %d copied', $this->copy->done, $this->copy->files),
            default => $this->copy->says,
        };
    }
}
