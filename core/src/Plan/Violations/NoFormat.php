<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** There is no format of that name. */
final readonly class NoFormat extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $format, public array $nearest = []) {}
}
