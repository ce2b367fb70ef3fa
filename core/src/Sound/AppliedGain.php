<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** A gain that was chosen for a whole sound. */
final readonly class AppliedGain
{
    /** @param  bool  $held  whether the ceiling of the true peak kept it from reaching the target */
    public function __construct(public float $decibels, public bool $held) {}

    public function factor(): float
    {
        return 10 ** ($this->decibels / 20);
    }
}
