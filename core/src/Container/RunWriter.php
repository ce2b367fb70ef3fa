<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Media\PacketRun;

/** A file that puts nothing between the packets of a run. */
interface RunWriter extends SoundWriter
{
    public function writeRun(PacketRun $run): void;
}
