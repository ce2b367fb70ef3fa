<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** The first packet of Vorbis gives no sound of its own: Vorbis I, 4.3.8. */
final class VorbisTrimmer implements PacketTrimmer
{
    private bool $begun = false;

    public function audio(AudioFormat $audio, int $samples): AudioFormat
    {
        return $audio;
    }

    public function packet(Packet $packet): Packet
    {
        if ($this->begun) {
            return $packet;
        }
        $this->begun = true;

        return new Packet($packet->data, $packet->start + $packet->length, 0);
    }
}
