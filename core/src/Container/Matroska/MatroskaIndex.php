<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** Where the packets of a Matroska file stand, and when. */
final readonly class MatroskaIndex
{
    /**
     * @param  list<TrackEntry>  $entries  in the order of the tracks
     * @param  array<int, int>  $origins  first time of each sound track, in ticks, by its number
     * @param  int  $scale  nanoseconds a tick
     */
    public function __construct(public array $entries, public ClusterList $clusters, public array $origins, public int $scale) {}
}
