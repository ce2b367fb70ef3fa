<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The format has no place for chapters. */
final readonly class DropChapters implements StepKind
{
    public function __construct(public string $format) {}
}
