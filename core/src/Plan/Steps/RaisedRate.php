<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** More is written than the source can fill. */
final readonly class RaisedRate implements StepKind
{
    /** @param  float  $own  kbit/s of the source */
    public function __construct(public int $kbps, public float $own) {}
}
