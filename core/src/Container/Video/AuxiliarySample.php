<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

/** One text, or one run of the time code. Times are ticks of its track's timescale, from the start of the source on. */
final readonly class AuxiliarySample
{
    /** @param  int  $duration  0 where that is not told */
    public function __construct(public string $data, public int $pts, public int $duration) {}
}
