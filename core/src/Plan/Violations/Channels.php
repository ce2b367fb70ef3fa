<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format carries fewer channels. */
final readonly class Channels extends Violation
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $format, public int $most, public string $layout, public array $nearest = []) {}
}
