<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The source has no sound. */
final readonly class NoSound extends Violation {}
