<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Bytes\Stretch;

/** One coded picture in the order of decoding. Times are ticks of the stream's timescale, from the first decoding time on. */
final readonly class PictureSample
{
    /**
     * @param  int  $dts  decode time stamp, in ticks of the stream
     * @param  int  $pts  presentation time stamp, in the same ticks
     * @param  int  $duration  ticks until the next is decoded
     */
    public function __construct(public Stretch $data, public int $dts, public int $pts, public int $duration, public bool $key) {}
}
