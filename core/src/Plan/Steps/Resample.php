<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Its sample rate changes. */
final readonly class Resample implements StepKind
{
    /**
     * @param  int  $from  Hz
     * @param  int  $rate  Hz of the result
     */
    public function __construct(public int $from, public int $rate) {}
}
