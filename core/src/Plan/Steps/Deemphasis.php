<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Pre-emphasis is taken off. */
final readonly class Deemphasis implements StepKind
{
    public function __construct(public int $tracks) {}
}
