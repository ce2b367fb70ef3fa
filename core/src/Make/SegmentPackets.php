<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Container\Demuxer;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;

/**
 * The packets of a stretch of a track as they are copied: uncompressed ones, which may reach beyond both ends, without what lies outside.
 */
final class SegmentPackets
{
    /** @return iterable<Packet> */
    public static function read(Demuxer $media, Track $track, Segment $segment): iterable
    {
        $from = (int) $segment->from;
        $until = $from + $segment->length;
        foreach ($media->packets($track, $from, $until) as $packet) {
            $packet = $track->sound?->pcm === null ? $packet : $packet->within($from, $until, $track->sound->frameBytes());
            if ($packet !== null) {
                yield $packet;
            }
        }
    }
}
