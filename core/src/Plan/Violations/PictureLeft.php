<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The picture is to be left out of a video. */
final readonly class PictureLeft extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $format, public array $nearest = []) {}
}
