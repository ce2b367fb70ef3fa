<?php

declare(strict_types=1);

namespace App\Settings\Values;

/** What an order does for its sources beside making something of them. */
enum SourceCare: string
{
    case Keep = 'keep';
    case Copy = 'copy';
    case Bin = 'bin';
    case Both = 'both';

    public function label(): string
    {
        return match ($this) {
            self::Keep => 'stay as they are',
            self::Copy => 'are copied safely first',
            self::Bin => 'go into the bin once all is verified',
            self::Both => 'are copied first, and binned at the end',
        };
    }

    /** Whether each is copied before anything is made of it. */
    public function copies(): bool
    {
        return $this === self::Copy || $this === self::Both;
    }

    /** Whether each goes into the bin after all that is made of it is verified. */
    public function clears(): bool
    {
        return $this === self::Bin || $this === self::Both;
    }
}
