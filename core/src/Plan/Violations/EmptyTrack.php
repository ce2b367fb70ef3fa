<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The track holds nothing. */
final readonly class EmptyTrack extends Violation
{
    public function __construct(public int $track) {}
}
