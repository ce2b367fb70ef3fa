<?php

declare(strict_types=1);

namespace App\Orders\Values;

/** One line from a channel coming in to a channel going out. */
final readonly class WayLine
{
    public function __construct(public int $from, public int $to, public float $width, public bool $kept) {}

    public function path(): string
    {
        return sprintf('M30 %d C 120 %d, 180 %d, 270 %d', $this->from, $this->from, $this->to, $this->to);
    }
}
