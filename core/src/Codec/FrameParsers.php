<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Codec\Dts\DtsFrameParser;
use Octavox\Core\Codec\Mp3\MpegFrameParser;
use Octavox\Core\Media\Codec;

/** The registry of what tells the frames of a codec apart by themselves, wherever the pieces that hold them end. */
final class FrameParsers
{
    public static function for(Codec $codec): ?FrameParser
    {
        return match ($codec) {
            Codec::Mp1, Codec::Mp2, Codec::Mp3 => new MpegFrameParser,
            Codec::Ac3, Codec::Eac3 => new Ac3FrameParser,
            Codec::Dts => new DtsFrameParser,
            default => null,
        };
    }
}
