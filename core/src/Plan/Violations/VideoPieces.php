<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** A video is to be cut. */
final readonly class VideoPieces extends Violation {}
