<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The result is one channel, with a label of its own. */
final readonly class Label implements StepKind
{
    public function __construct(public string $label) {}
}
