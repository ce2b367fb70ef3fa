<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** No format has such a rate. */
final readonly class RateBeyond extends Violation
{
    /**
     * @param  int  $rate  Hz
     * @param  list<int>  $nearest
     */
    public function __construct(public int $rate, public array $nearest = []) {}
}
