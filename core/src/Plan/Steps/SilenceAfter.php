<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Silence at the end. */
final readonly class SilenceAfter implements StepKind
{
    /** @param  ?string  $length  that was asked for; null where it is the length of the picture */
    public function __construct(public float $seconds, public ?string $length = null) {}
}
