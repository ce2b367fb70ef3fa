<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Media\BordersQuery;
use Octavox\Core\Media\PacketBorders;

/** Looks at the packets around the marks of a cut. */
final class BorderFinder
{
    public static function find(OpenedSource $source, BordersQuery $query): PacketBorders
    {
        $track = $source->track($query->track);
        if ($track === null) {
            return new PacketBorders([], null);
        }
        $starts = [];
        foreach ($source->media->packets($track, $query->from, $query->from + 1) as $packet) {
            if ($packet->start <= $query->from) {
                $starts[] = $packet->start;
            }
        }
        foreach ($source->media->packets($track, $query->until - 1, $query->until) as $packet) {
            if ($packet->start < $query->until && $packet->start + $packet->length >= $query->until) {
                return new PacketBorders($starts, $packet->start + $packet->length);
            }
        }

        return new PacketBorders($starts, null);
    }
}
