<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** Writes a header that is right from the begin, the packets as they are, and what follows them. */
final class Headed implements StretchWriter
{
    public function __construct(private readonly ByteSink $sink, string $header, private readonly string $trailer = '')
    {
        $this->sink->write($header);
    }

    public function write(Packet $packet): void
    {
        $this->sink->write($packet->data);
    }

    public function copy(Stretch $packets): void
    {
        $this->sink->copy($packets);
    }

    public function finish(int $samples, AudioFormat $audio): void
    {
        $this->sink->write($this->trailer);
    }
}
