<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** Frames are counted from the first of the cut; what they hold stays as it is, and a damaged one stays known as damaged. */
final class FlacTrimmer implements PacketTrimmer
{
    private ?int $first = null;

    public function audio(AudioFormat $audio, int $samples): AudioFormat
    {
        return $audio->withConfig(StreamInfo::parse($audio->config)?->ofCut($samples) ?? $audio->config);
    }

    public function packet(Packet $packet): Packet
    {
        $this->first ??= FrameHeader::parse($packet->data)?->number;

        return FrameHeader::shifted($packet, -($this->first ?? 0));
    }
}
