<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\PacketTrimmers;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Reading\Opener;

/** Finds the packets with which a kept piece begins and ends; for that it opens the source and looks at those around both marks. */
final class FrameBorders implements CutFinder
{
    public function around(string $path, ?HeaderlessFormat $stated, int $number, AudioFormat $audio, OutputFormat $format, int $from, int $until): ?KeptCut
    {
        if (PacketTrimmers::of($audio->codec) === null) {
            return null;
        }
        $source = Opener::open($path, $stated);
        $track = $source->track($number);
        if ($track === null) {
            return null;
        }
        $starts = [];
        foreach ($source->media->packets($track, $from, $from + 1) as $packet) {
            if ($packet->start <= $from) {
                $starts[] = $packet->start;
            }
        }
        $end = null;
        foreach ($source->media->packets($track, $until - 1, $until) as $packet) {
            if ($packet->start < $until && $packet->start + $packet->length >= $until) {
                $end = $packet->start + $packet->length;
                break;
            }
        }
        if ($starts === [] || $end === null) {
            return null;
        }
        if ($audio->codec === Codec::Vorbis) {
            // The first packet only lets the second begin; the end is said to the sample.
            return count($starts) < 2 || ! $format->carries($audio) ? null : new KeptCut($starts[count($starts) - 2], $end, 0, $until - $starts[count($starts) - 1], $from - $starts[count($starts) - 1], 0);
        }
        // The decoder begins before the mark where the container can leave that out; the sooner, the safer.
        foreach ($starts as $start) {
            if ($start < $from && $format->presentedKept($audio, $end - $start, $from - $start, $until - $from) === $until - $from) {
                return new KeptCut($start, $end, $from - $start, $until - $from, 0, 0);
            }
        }
        $start = $starts[count($starts) - 1];

        return new KeptCut($start, $end, 0, $end - $start, $from - $start, $end - $until);
    }
}
