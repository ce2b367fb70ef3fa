<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** What stands before the picture is left out. */
final readonly class DropBefore implements StepKind
{
    public function __construct(public float $seconds) {}
}
