<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** How many samples a packet decodes to, seen from its first bytes. One for each track: some codecs need to know the packet before. */
interface PacketLength
{
    /** Samples a channel. */
    public function samples(string $packet): int;
}
