<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Codec\PacketRun;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\RunSource;
use Octavox\Core\Container\Segment;
use Octavox\Core\Container\StretchSource;
use Octavox\Core\Container\Track;

/** XXH128 of the packets of a sound track one after another, in as large parts as its container allows. */
final class PacketSum
{
    /** Packets after which somebody may want to know how far it is. */
    private const BETWEEN_SIGNS = 64;

    /** @param  callable(int): void  $sign  told now and then how many samples are done */
    public static function ofAll(Media $media, Track $track, callable $sign): string
    {
        $runs = $media instanceof RunSource ? $media->runs($track) : null;

        return $runs === null ? self::of($media, $track, [Segment::media(0, PHP_INT_MAX >> 2)], $sign) : self::ofRuns($runs, $sign);
    }

    /**
     * @param  list<Segment>  $segments  of the track, none of them silence
     * @param  callable(int): void  $sign
     */
    public static function of(Media $media, Track $track, array $segments, callable $sign): string
    {
        $hash = hash_init('xxh128');
        $done = 0;
        foreach ($segments as $segment) {
            [$from, $until] = [(int) $segment->from, (int) $segment->from + $segment->length];
            $stretches = $media instanceof StretchSource ? $media->stretches($track, $from, $until) : null;
            foreach ($stretches ?? [] as $stretch) {
                foreach ($stretch->pieces() as $bytes) {
                    hash_update($hash, $bytes);
                }
                $done += intdiv($stretch->length, max(1, $track->sound?->frameBytes() ?? 1));
                $sign($done);
            }
            $count = 0;
            foreach ($stretches === null ? $media->packets($track, $from, $until) : [] as $packet) {
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
     * @param  iterable<PacketRun>  $runs
     * @param  callable(int): void  $sign
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
