<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format does not have that rate. */
final readonly class Rate extends Violation implements OfFormat
{
    /**
     * @param  int  $rate  Hz
     * @param  list<int>  $nearest
     */
    public function __construct(public string $format, public int $rate, public array $nearest = []) {}
}
