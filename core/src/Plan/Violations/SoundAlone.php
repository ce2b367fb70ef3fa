<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The picture is to be kept in a format of sound. */
final readonly class SoundAlone extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $format, public array $nearest = []) {}
}
