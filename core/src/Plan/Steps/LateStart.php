<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Other programs begin it late. */
final readonly class LateStart implements StepKind
{
    /** @param  int  $rate  Hz */
    public function __construct(public int $samples, public int $rate) {}
}
