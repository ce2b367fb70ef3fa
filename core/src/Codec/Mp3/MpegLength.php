<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\PacketLength;

/** Length of MPEG audio frames. */
final class MpegLength implements PacketLength
{
    public function samples(string $packet): int
    {
        return (FrameHeader::parse($packet) ?? FrameHeader::free($packet, 0))->samples ?? 0;
    }
}
