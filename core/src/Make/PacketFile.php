<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Packet;

/** Packets on their way to another process, in a file as {@see PipedPackets} reads them. */
final class PacketFile
{
    public function __construct(private readonly FileSink $sink)
    {
        // The reader sums the packets.
        $sink->needsNoChecksum();
    }

    public function write(Packet $packet): void
    {
        $this->sink->write(PipedPackets::pack($packet));
    }
}
