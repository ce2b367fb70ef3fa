<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** There is no such track. */
final readonly class NoTrack extends Violation
{
    /** @param  list<int>  $nearest */
    public function __construct(public int $track, public array $nearest = []) {}
}
