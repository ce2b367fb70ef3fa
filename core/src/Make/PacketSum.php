<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\BareSource;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\RunSource;
use Octavox\Core\Container\StretchSource;
use Octavox\Core\Failure;
use Octavox\Core\Media\PacketRun;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;

/** XXH128 of the packets of a sound track one after another, in as large parts as its container allows. */
final class PacketSum
{
    /** Packets after which somebody may want to know how far it is. */
    private const BETWEEN_SIGNS = 64;

    /**
     * @param  list<int>  $seams  samples at which it is summed anew, rising; one sum for each stretch between them
     * @param  callable(int): void  $sign  told now and then how many samples are done
     *
     * @throws BytesMissing
     * @throws Failure
     * @throws FileUnreadable
     */
    public static function ofAll(Demuxer $media, Track $track, array $seams, callable $sign): string
    {
        if ($seams === [] && $media instanceof BareSource) {
            return self::ofStretches([$media->bare()], 1, $sign);
        }
        $runs = $media instanceof RunSource ? $media->runs($track) : null;
        if ($seams === [] && $runs !== null) {
            return self::ofRuns($runs, $sign);
        }
        $sums = [];
        foreach ([...$seams, PHP_INT_MAX >> 2] as $index => $until) {
            $from = $seams[$index - 1] ?? 0;
            $sums[] = self::compute($media, $track, [Segment::media($from, $until - $from)], $sign);
        }

        return implode(' ', $sums);
    }

    /**
     * @param  list<Segment>  $segments  of the track, none of them silence
     * @param  callable(int): void  $sign
     *
     * @throws BytesMissing
     * @throws Failure
     */
    public static function compute(Demuxer $media, Track $track, array $segments, callable $sign): string
    {
        $stretches = self::stretches($media, $track, $segments);
        if ($stretches !== null) {
            return self::ofStretches($stretches, max(1, $track->sound?->frameBytes() ?? 1), $sign);
        }
        $hash = hash_init('xxh128');
        $done = $count = 0;
        foreach ($segments as $segment) {
            foreach (SegmentPackets::read($media, $track, $segment) as $packet) {
                hash_update($hash, $packet->data);
                $done += $packet->length;
                if (++$count % self::BETWEEN_SIGNS === 0) {
                    $sign($done);
                }
            }
        }

        return hash_final($hash);
    }

    /**
     * The samples of a track that stand in the file as they are.
     *
     * @param  list<Segment>  $segments  of the track, none of them silence
     * @return ?iterable<Stretch> null where they do not stand in long stretches
     *
     * @throws BytesMissing
     * @throws Failure
     */
    public static function stretches(Demuxer $media, Track $track, array $segments): ?iterable
    {
        $parts = array_map(fn (Segment $segment): ?iterable => $media instanceof StretchSource
            ? $media->stretches($track, (int) $segment->from, (int) $segment->from + $segment->length) : null, $segments);

        return in_array(null, $parts, true) ? null : (function () use ($parts): iterable {
            foreach ($parts as $part) {
                yield from $part;
            }
        })();
    }

    /**
     * @param  iterable<Stretch>  $stretches
     * @param  int  $width  bytes of what is counted
     * @param  callable(int): void  $sign
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function ofStretches(iterable $stretches, int $width, callable $sign): string
    {
        $hash = hash_init('xxh128');
        $bytes = 0;
        foreach ($stretches as $stretch) {
            foreach ($stretch->pieces() as $piece) {
                hash_update($hash, $piece);
                $bytes += strlen($piece);
                $sign(intdiv($bytes, $width));
            }
        }

        return hash_final($hash);
    }

    /**
     * @param  iterable<PacketRun>  $runs
     * @param  callable(int): void  $sign
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function ofRuns(iterable $runs, callable $sign): string
    {
        $hash = hash_init('xxh128');
        $done = 0;
        foreach ($runs as $run) {
            hash_update($hash, $run->data->bytes());
            $done += $run->length();
            $sign($done);
        }

        return hash_final($hash);
    }
}
