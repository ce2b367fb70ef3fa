<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

/** Places the packets of a sound track, in samples. */
interface PacketClock
{
    /**
     * First sample of a packet that holds so many; null where others have all of it.
     *
     * @param  ?int  $tick  of 90 kHz, counted from the first packet of the track; null where it is not told
     */
    public function place(?int $tick, int $samples): ?int;

    /** Samples to leave out at the start of the packet that was placed last. */
    public function over(): int;

    /** Samples up to the end of what was placed. */
    public function end(): int;

    /** How often the times began anew. */
    public function bases(): int;
}
