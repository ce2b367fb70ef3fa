<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Alac\AlacLength;
use Octavox\Core\Codec\Flac\FlacLength;
use Octavox\Core\Codec\Mp3\MpegLength;
use Octavox\Core\Codec\Opus\OpusLength;
use Octavox\Core\Codec\Vorbis\VorbisLength;
use Octavox\Core\Codec\WavPack\WavPackLength;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** The registry of what tells the length of a packet without decoding it. */
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
        return match ($audio->codec) {
            Codec::Opus => new OpusLength,
            Codec::Vorbis => VorbisLength::fromHeaders($audio->config),
            Codec::Flac => new FlacLength,
            Codec::WavPack => new WavPackLength,
            Codec::Alac => AlacLength::fromCookie($audio->config),
            Codec::Mp1, Codec::Mp2, Codec::Mp3 => new MpegLength,
            default => new SteadyLength($audio),
        };
    }
}
