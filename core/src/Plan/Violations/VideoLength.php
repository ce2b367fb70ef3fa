<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The sound of a video is to be as long as something else. */
final readonly class VideoLength extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public array $nearest = []) {}
}
