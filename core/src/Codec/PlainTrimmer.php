<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** Packets that do not tell where they stood. */
final class PlainTrimmer implements PacketTrimmer
{
    public function audio(AudioFormat $audio, int $samples): AudioFormat
    {
        return $audio;
    }

    public function packet(Packet $packet): Packet
    {
        return $packet;
    }
}
