<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\FrameParsers;
use Octavox\Core\Container\BlockFile;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\PcmFile;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;

/** The stretch of bytes that holds the sound of a WAV or Wave64 file, seen in the way of its format. */
final class SoundPart
{
    /**
     * @param  int  $announced  samples that a `fact` chunk names, 0 where there is none
     * @param  ?CuePoints  $cues  where the file has them
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function open(OpenedBytes $file, FormatChunk $format, int $at, int $length, int $announced,
        ?CuePoints $cues = null): Demuxer
    {
        $audio = $format->audio;
        $marks = $cues?->chapters($audio->rate) ?? [];
        $tags = $marks === [] ? $file->tags : $file->tags->withChapters($marks);
        $file = new OpenedBytes($file->container, $file->bytes, $tags, $file->diagnostics);
        if ($audio->pcm !== null) {
            return new PcmFile($file->container, $file->bytes, Track::sound(1, $audio, Timeline::plain(intdiv($length,
                $audio->frameBytes())), $length),
                $at, $tags, $file->diagnostics);
        }
        $framing = FrameParsers::for($audio->codec);
        if ($framing !== null) {
            return FrameFile::count($file, $framing, $at, $at + $length);
        }
        $blocks = intdiv($length, $format->blockBytes);
        $coded = $blocks * $format->blockSamples;
        $samples = $announced > 0 && $announced <= $coded && $coded - $announced < $format->blockSamples ? $announced : $coded;
        if ($format->blockSamples === 0 && $format->bytesPerSecond > 0) {
            $samples = $announced > 0 ? $announced : intdiv($length * $audio->rate, $format->bytesPerSecond);
        }
        $track = Track::sound(1, $audio, Timeline::plain($samples, 0, max($coded, $samples)), $length);

        return new BlockFile($file, $track, $at, $at + $length, $format->blockBytes, $format->blockSamples);
    }
}
