<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\Codec;

/** What tells the frames of a codec apart by themselves. */
final class FrameParsers
{
    public static function for(Codec $codec): ?FrameParser
    {
        return CodecModules::of($codec)->frames();
    }
}
