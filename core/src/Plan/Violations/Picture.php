<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The container does not carry that picture. */
final readonly class Picture extends Violation
{
    public function __construct(public string $picture, public string $container) {}
}
