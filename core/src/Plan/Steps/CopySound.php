<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The sound is copied untouched. */
final readonly class CopySound implements StepKind
{
    public function __construct(public string $format) {}
}
