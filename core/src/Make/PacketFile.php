<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Packet;

/** Packets on their way to another process, in a file as {@see PipedPackets} reads them. */
final class PacketFile
{
    /** @var list<string> */
    private array $pending = [];

    private int $bytes = 0;

    private int $start = 0;

    private int $length = 0;

    /** @param  int  $together  bytes that become one packet at least, 0 where packets must stay as they are */
    public function __construct(private readonly FileSink $sink, private readonly int $together)
    {
        // The reader sums the packets.
        $sink->needsNoChecksum();
    }

    public function write(Packet $packet): void
    {
        if ($this->pending === []) {
            $this->start = $packet->start;
        }
        $this->pending[] = $packet->data;
        $this->bytes += strlen($packet->data);
        $this->length += $packet->length;
        if ($this->bytes >= $this->together) {
            $this->drain();
        }
    }

    public function close(): void
    {
        $this->drain();
        $this->sink->close();
    }

    private function drain(): void
    {
        if ($this->pending !== []) {
            $this->sink->write(PipedPackets::pack(new Packet(implode('', $this->pending), $this->start, $this->length)));
            $this->pending = [];
            $this->bytes = 0;
            $this->length = 0;
        }
    }
}
