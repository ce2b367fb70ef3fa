<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Container\BlockFile;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\PcmFile;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** A file without a header, seen as what it is said to be. */
final class RawFile
{
    public static function open(ByteSource $bytes, HeaderlessFormat $stated): Demuxer
    {
        $audio = $stated->audio();
        $size = $bytes->size();
        if ($audio->pcm !== null) {
            return new PcmFile('raw', $bytes,
                Track::sound(1, $audio, Timeline::plain(intdiv($size, $audio->frameBytes())), $size), 0, Tags::none());
        }
        // Two samples a byte; 160 samples in 33 bytes
        [$block, $samples] = $audio->codec === Codec::Dialogic ? [1, 2] : [33, 160];

        return new BlockFile(new OpenedBytes('raw', $bytes, Tags::none()),
            Track::sound(1, $audio, Timeline::plain(intdiv($size, $block) * $samples), $size), 0, $size, $block, $samples);
    }
}
