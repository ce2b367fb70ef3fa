<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format can be kept, but not made. */
final readonly class OnlyKept extends Violation
{
    public function __construct(public string $format, public string $source) {}
}
