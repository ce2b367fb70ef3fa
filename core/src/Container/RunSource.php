<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Media\PacketRun;
use Octavox\Core\Media\Track;

/** A container whose index tells so much that packets need not be looked at one by one. */
interface RunSource extends Demuxer
{
    /**
     * All packets of a sound track, many at a time.
     *
     * @return ?iterable<PacketRun> null where they must be taken one by one: they leave gaps, or last differently
     */
    public function runs(Track $track): ?iterable;
}
