<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Ac3\Ac3Framing;
use Octavox\Core\Codec\Dts\DtsFraming;
use Octavox\Core\Codec\Mp3\MpegFraming;

/** The registry of what tells the frames of a codec apart by themselves, wherever the pieces that hold them end. */
final class Framings
{
    public static function for(Codec $codec): ?Framing
    {
        return match ($codec) {
            Codec::Mp1, Codec::Mp2, Codec::Mp3 => new MpegFraming,
            Codec::Ac3, Codec::Eac3 => new Ac3Framing,
            Codec::Dts => new DtsFraming,
            default => null,
        };
    }
}
