<?php

declare(strict_types=1);

namespace App\Values;

use App\Models\CopiedFolder;

/** A recorder that is plugged in, as its page shows it. */
final readonly class PluggedRecorder
{
    /**
     * @param  int  $files  recordings on it
     * @param  int  $new  those that were not copied in yet
     */
    public function __construct(public string $name, public int $files, public int $new, public int $bytes, public ?CopiedFolder $copy) {}

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
