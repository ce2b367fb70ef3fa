<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** What stands after the picture is left out. */
final readonly class DropAfter implements StepKind
{
    /** @param  ?string  $length  that was asked for; null where it is the length of the picture */
    public function __construct(public float $seconds, public ?string $length = null) {}
}
