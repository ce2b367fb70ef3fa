<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Container\BlockFile;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\PcmFile;
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
                Track::sound(1, $audio, Timeline::plain($stated->frames($size)), $size), 0, Tags::none());
        }
        [$block, $samples] = $stated->block();

        return new BlockFile(new OpenedBytes('raw', $bytes, Tags::none()),
            Track::sound(1, $audio, Timeline::plain($stated->frames($size)), $size), 0, $size, $block, $samples);
    }
}
