<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** There is no picture whose length is known. */
final readonly class NoLength extends Violation
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $name, public array $nearest = []) {}
}
