<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** Tracks that are to be joined differ. */
final readonly class NotAlike extends Violation
{
    public function __construct(public int $track) {}
}
