<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\Flac\FlacOutput;
use Octavox\Core\Container\Ogg\OpusOutput;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\SubtitleText;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** Videos as Matroska or WebM. */
final class MatroskaVideo implements VideoOutputFormat
{
    private function __construct(private readonly bool $web) {}

    public static function matroska(): self
    {
        return new self(false);
    }

    public static function web(): self
    {
        return new self(true);
    }

    public function name(): string
    {
        return $this->web ? 'webm' : 'mkv';
    }

    public function label(): string
    {
        return $this->web ? 'Video, WebM' : 'Video, Matroska';
    }

    public function extension(): string
    {
        return $this->name();
    }

    public function suits(): string
    {
        return $this->web ? 'for web pages' : 'holds pictures and sound of every kind';
    }

    public function carriesPicture(Codec $codec): bool
    {
        return $this->web ? in_array($codec, [Codec::Vp8, Codec::Vp9, Codec::Av1], true) : MatroskaPicture::id($codec) !== null;
    }

    public function doubts(AudioFormat $audio): ?string
    {
        return null;
    }

    public function carriesSound(AudioFormat $audio): bool
    {
        return MatroskaTrack::carries($audio, $this->web);
    }

    /** RFC 9559 has no element for the places of channels; coded sound says it itself. */
    public function holdsLayout(AudioFormat $audio): bool
    {
        return $audio->codec !== Codec::Pcm;
    }

    public function carriesAuxiliary(string $coding): bool
    {
        return $this->web ? str_starts_with($coding, 'D_WEBVTT/') : str_starts_with($coding, 'S_') || str_starts_with($coding, 'D_WEBVTT/')
            || SubtitleText::isPlain($coding);
    }

    public function encodes(): OutputFormat
    {
        return $this->web ? new OpusOutput : new FlacOutput;
    }

    /** A head before each block takes about 7, a cue and a cluster about 40 for each second. */
    public function indexBytes(): array
    {
        return [900, 8, 7, 40];
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, VideoParts $parts): VideoWriter
    {
        return new MatroskaVideoWriter($sink, $this->web, $parts);
    }
}
