<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** A finding stands in the way. */
final readonly class Stopped extends Violation
{
    public function __construct(public string $says, public string $remedy) {}
}
