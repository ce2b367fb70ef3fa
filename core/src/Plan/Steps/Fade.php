<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** It fades in, out or both. */
final readonly class Fade implements StepKind
{
    /**
     * @param  float  $in  seconds
     * @param  float  $out  seconds
     */
    public function __construct(public float $in, public float $out) {}
}
