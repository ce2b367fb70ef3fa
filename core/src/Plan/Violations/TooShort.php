<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** Nothing would be left of it. */
final readonly class TooShort extends Violation
{
    /** @param  int  $rate  Hz */
    public function __construct(public int $track, public int $rate) {}
}
