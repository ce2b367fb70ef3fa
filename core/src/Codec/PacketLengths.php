<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;

/** How long packets are, without decoding them. */
final class PacketLengths
{
    /** Whether the packets themselves tell their length; of others only the container's times do. */
    public static function areTold(AudioFormat $audio): bool
    {
        return $audio->pcm !== null || $audio->frameLength > 0 || ! self::for($audio) instanceof SteadyLength;
    }

    /**
     * Samples by which a length may differ once it was written and read again: where only times tell it, they are whole milliseconds at
     * both ends.
     */
    public static function tolerance(AudioFormat $audio): int
    {
        return self::areTold($audio) ? 0 : intdiv($audio->rate, 500);
    }

    public static function for(AudioFormat $audio): PacketLength
    {
        return CodecModules::of($audio->codec)->length($audio);
    }
}
