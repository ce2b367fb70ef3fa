<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** Next to nothing but silence would be made. */
final readonly class Silence extends Violation
{
    public function __construct(public int $track, public float $hours) {}
}
