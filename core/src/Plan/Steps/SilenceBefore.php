<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Silence first, so that it starts with the picture. */
final readonly class SilenceBefore implements StepKind
{
    public function __construct(public float $seconds) {}
}
