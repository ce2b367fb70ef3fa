<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** Several pieces are to have one length. */
final readonly class LengthOfPieces extends Violation
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $length, public array $nearest = []) {}
}
