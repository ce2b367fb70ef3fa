<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Bytes\Stretch;

/** Pictures whose container tells only when each begins: one lasts until the next is decoded, the last as long as the one before it. */
final class PictureDurations
{
    /**
     * The same for pictures whose own durations say something else; the last keeps its own.
     *
     * @param  iterable<PictureSample>  $pictures  in the order of decoding
     * @return iterable<PictureSample>
     */
    public static function pictures(iterable $pictures): iterable
    {
        $held = null;
        foreach ($pictures as $picture) {
            if ($held !== null) {
                yield new PictureSample($held->data, $held->dts, $held->pts, max(1, $picture->dts - $held->dts), $held->key);
            }
            $held = $picture;
        }
        if ($held !== null) {
            yield $held;
        }
    }

    /**
     * @param  iterable<array{string, int, int, bool}>  $pictures  in the order of decoding: bytes, ticks of decoding and of showing, key
     * @param  int  $usual  ticks that a picture lasts which is the only one
     * @return iterable<PictureSample>
     */
    public static function untilNext(iterable $pictures, int $usual): iterable
    {
        $held = null;
        $duration = $usual;
        foreach ($pictures as $picture) {
            if ($held !== null) {
                $duration = max(1, $picture[1] - $held[1]);
                yield new PictureSample(Stretch::of($held[0]), $held[1], $held[2], $duration, $held[3]);
            }
            $held = $picture;
        }
        if ($held !== null) {
            yield new PictureSample(Stretch::of($held[0]), $held[1], $held[2], $duration, $held[3]);
        }
    }
}
