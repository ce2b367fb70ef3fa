<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The container does not carry that sound. */
final readonly class VideoSound extends Violation
{
    public function __construct(public string $container, public string $format) {}
}
