<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Flac\FlacTrimmer;
use Octavox\Core\Codec\Vorbis\VorbisTrimmer;
use Octavox\Core\Media\Codec;

/** The codecs whose packets can be cut without decoding, and what each needs for that. PCM has no packets of its own. */
final class PacketTrimmers
{
    /** @return ?PacketTrimmer null where packets mean nothing without those before them */
    public static function of(Codec $codec): ?PacketTrimmer
    {
        return match ($codec) {
            Codec::Flac => new FlacTrimmer,
            Codec::Vorbis => new VorbisTrimmer,
            Codec::Aac, Codec::Alac, Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::Opus, Codec::Ac3, Codec::Eac3, Codec::Dts, Codec::AmrNarrow,
            Codec::AmrWide => new PlainTrimmer,
            default => null,
        };
    }
}
