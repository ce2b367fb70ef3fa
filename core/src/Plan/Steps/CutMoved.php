<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** A cut of kept packets that stands on their borders. */
final readonly class CutMoved implements StepKind
{
    /**
     * @param  float  $early  ms
     * @param  float  $late  ms
     */
    public function __construct(public float $early, public float $late) {}
}
