<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Flac\FlacCutting;
use Octavox\Core\Codec\Vorbis\VorbisCutting;

/** The codecs whose packets can be cut without decoding, and what each needs for that. PCM has no packets of its own. */
final class Cuttings
{
    /** @return ?Cutting null where packets mean nothing without those before them */
    public static function of(Codec $codec): ?Cutting
    {
        return match ($codec) {
            Codec::Flac => new FlacCutting,
            Codec::Vorbis => new VorbisCutting,
            Codec::Aac, Codec::Alac, Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::Opus, Codec::Ac3, Codec::Eac3, Codec::Dts, Codec::AmrNarrow, Codec::AmrWide => new PlainCutting,
            default => null,
        };
    }
}
