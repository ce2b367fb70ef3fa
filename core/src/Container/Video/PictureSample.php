<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Bytes\Stretch;

/** One coded picture in the order of decoding. Times are ticks of the stream's timescale, from the first decoding time on. */
final readonly class PictureSample
{
    /**
     * @param  int  $decoded  when it is decoded
     * @param  int  $shown  when it is shown
     * @param  int  $lasts  until the next is decoded
     */
    public function __construct(public Stretch $data, public int $decoded, public int $shown, public int $lasts, public bool $key)
    {
    }
}
