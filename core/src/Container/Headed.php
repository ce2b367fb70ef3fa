<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** Writes a header that is right from the start, the packets as they are, and what follows them. */
final class Headed implements StretchWriter
{
    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, string $header, private readonly string $trailer = '')
    {
        $this->sink->write($header);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(Packet $packet): void
    {
        $this->sink->write($packet->data);
    }

    /**
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function copy(Stretch $packets): void
    {
        $this->sink->copy($packets);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        $this->sink->write($this->trailer);
    }
}
