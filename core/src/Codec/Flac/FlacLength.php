<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\PacketLength;

/** Length of FLAC frames. */
final class FlacLength implements PacketLength
{
    public function samples(string $packet): int
    {
        return FrameHeader::parse(substr($packet, 0, 16))->samples ?? 0;
    }
}
