<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** One frame of a block: where it stands, and when. */
final readonly class Frame
{
    /**
     * @param  int  $time  in ticks of the segment, of the block
     * @param  int  $index  place within the block, from 0
     * @param  int  $duration  ticks that the block is told to last, 0 where that is not told
     * @param  int  $discard  nanoseconds at its end that are not presented
     */
    public function __construct(public int $track, public int $time, public int $index, public int $at, public int $bytes, public bool $key,
        public int $discard = 0, public int $duration = 0) {}
}
