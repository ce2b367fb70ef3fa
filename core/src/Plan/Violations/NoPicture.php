<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The source has no picture. */
final readonly class NoPicture extends Violation
{
    public function __construct(public string $container) {}
}
