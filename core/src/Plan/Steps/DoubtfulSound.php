<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Sound that many players do not play where it is put. */
final readonly class DoubtfulSound implements StepKind
{
    public function __construct(public string $says) {}
}
