<?php

declare(strict_types=1);

namespace App\Orders\Pages;

/** What the foot of an order sheet says of all results together. */
final readonly class SheetTotals
{
    /**
     * @param  int  $bytes  predicted
     * @param  int  $soundBytes  of what goes in
     * @param  float  $seconds  length of all together
     * @param  ?float  $takes  seconds of work at the speed measured lately
     * @param  ?int  $free  bytes that are free where they go; null where that is not known
     */
    public function __construct(public int $files, public int $bytes, public int $soundBytes, public float $seconds, public ?float $takes,
        public ?int $free, public int $stopped, public int $right) {}

    public function fits(): bool
    {
        return $this->free === null || $this->bytes < $this->free;
    }
}
