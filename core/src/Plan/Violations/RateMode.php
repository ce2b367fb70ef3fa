<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format does not hold its rate so. */
final readonly class RateMode extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $format, public string $mode, public array $nearest = []) {}
}
