<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format is not made with that codec. */
final readonly class OtherCodec extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $format, public string $codec, public array $nearest = []) {}
}
