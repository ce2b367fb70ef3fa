<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Silence is filled in where the file’s times leave it open. */
final readonly class FilledSilence implements StepKind
{
    public function __construct(public string $time) {}
}
