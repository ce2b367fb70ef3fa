<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Dither is added. */
final readonly class Dither implements StepKind
{
    /** @param  int  $of  bits of the source where it has more */
    public function __construct(public int $bits, public int $of = 0) {}
}
