<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\FrameParsers;
use Octavox\Core\Container\BlockFile;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\PcmFile;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** The stretch of bytes that holds the sound of a WAV or Wave64 file, seen in the way of its form. */
final class SoundPart
{
    /**
     * @param  int  $announced  samples that a `fact` chunk names, 0 where there is none
     * @param  list<Diagnostic>  $remarks
     * @param  ?CuePoints  $cues  where the file has them
     */
    public static function open(string $container, ByteSource $bytes, FormatChunk $format, int $at, int $length, int $announced, Tags $tags, array $remarks, ?CuePoints $cues = null): Demuxer
    {
        $form = $format->form;
        $marks = $cues?->chapters($form->rate) ?? [];
        $tags = $marks === [] ? $tags : $tags->withChapters($marks);
        if ($form->pcm !== null) {
            return new PcmFile($container, $bytes, Track::sound(1, $form, Timeline::plain(intdiv($length, $form->frameBytes())), $length), $at, $tags, $remarks);
        }
        $framing = FrameParsers::for($form->codec);
        if ($framing !== null) {
            return FrameFile::count($container, $bytes, $framing, $at, $at + $length, $tags, $remarks);
        }
        $blocks = intdiv($length, $format->blockBytes);
        $coded = $blocks * $format->blockSamples;
        $samples = $announced > 0 && $announced <= $coded && $coded - $announced < $format->blockSamples ? $announced : $coded;
        if ($format->blockSamples === 0 && $format->bytesPerSecond > 0) {
            $samples = $announced > 0 ? $announced : intdiv($length * $form->rate, $format->bytesPerSecond);
        }
        $track = Track::sound(1, $form, Timeline::plain($samples, 0, max($coded, $samples)), $length);

        return new BlockFile($container, $bytes, $track, $at, $at + $length, $format->blockBytes, $format->blockSamples, $tags, $remarks);
    }
}
