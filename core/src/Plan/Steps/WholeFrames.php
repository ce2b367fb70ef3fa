<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Whole frames are presented, where a file cannot say what to leave out. */
final readonly class WholeFrames implements StepKind
{
    /** @param  int  $samples  more than the source presents */
    public function __construct(public int $samples) {}
}
