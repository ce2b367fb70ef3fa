<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\KeptOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** One sound track of whatever codec, as it is, in Matroska. */
final class MatroskaOutput extends KeptOutput
{
    public function name(): string
    {
        return 'mka';
    }

    public function container(): string
    {
        return 'mkv';
    }

    public function label(): string
    {
        return 'Matroska sound';
    }

    public function extension(): string
    {
        return 'mka';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, $this->suits(), [], [], Layout::MOST_CHANNELS, makes: false, holdsGaps: true,
            holdsChapters: true);
    }

    public function carries(AudioFormat $source): bool
    {
        return MatroskaTrack::carries($source, false) && $source->codec !== Codec::Pcm;
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return $source;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $samples;
    }

    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new MatroskaSoundWriter($sink, $audio, $tags, $skip);
    }

    protected function codecs(): array
    {
        return [Codec::Aac, Codec::Opus, Codec::Vorbis, Codec::Flac, Codec::Alac, Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::Ac3,
            Codec::Eac3, Codec::Dts, Codec::TrueHd, Codec::WindowsMedia];
    }

    protected function suits(): string
    {
        return 'sound of any codec, copied untouched';
    }
}
