<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Several pieces, one after the other. */
final readonly class Pieces implements StepKind
{
    /** @param  string  $total  time */
    public function __construct(public int $count, public string $total) {}
}
