<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Opus;

use Octavox\Core\Codec\PacketLength;

/** Length of Opus packets. */
final class OpusLength implements PacketLength
{
    public function samples(string $packet): int
    {
        return OpusHead::samples($packet);
    }
}
