<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format has no such level of compression. */
final readonly class Compression extends Violation implements OfFormat
{
    /** @param  list<int>  $nearest */
    public function __construct(public string $format, public int $level, public array $nearest = []) {}
}
