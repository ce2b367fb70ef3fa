<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format does not have that bit depth. */
final readonly class BitDepth extends Violation implements OfFormat
{
    /** @param  list<int>  $nearest */
    public function __construct(public string $format, public int $bits, public array $nearest = []) {}
}
