<?php

declare(strict_types=1);

namespace App\Results\Values;

enum ResultState: string
{
    case Waiting = 'waiting';
    case Making = 'making';
    case Done = 'done';
    case Failed = 'failed';
    case Cancelled = 'cancelled';
    case Skipped = 'skipped';

    public function isOpen(): bool
    {
        return $this === self::Waiting || $this === self::Making;
    }

    public function canBeRetried(): bool
    {
        return $this === self::Failed || $this === self::Cancelled;
    }

    public function label(): string
    {
        return match ($this) {
            self::Waiting => 'waiting',
            self::Making => 'being made',
            self::Done => 'done',
            self::Failed => 'failed',
            self::Cancelled => 'cancelled',
            self::Skipped => 'left out: it was there already',
        };
    }
}
