<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** One piece of the source. */
final readonly class Piece implements StepKind
{
    /**
     * @param  string  $from  time position
     * @param  string  $until  time position
     */
    public function __construct(public string $from, public string $until) {}
}
