<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Film\FilmFormat;
use Octavox\Core\Container\Film\FilmWriter;
use Octavox\Core\Container\Film\PictureStream;
use Octavox\Core\Container\Film\SubtitleText;
use Octavox\Core\Container\Flac\FlacOutput;
use Octavox\Core\Container\Ogg\OpusOutput;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Tag\Tags;

/** Films as Matroska or WebM. */
final class MatroskaFilm implements FilmFormat
{
    private function __construct(private readonly bool $web)
    {
    }

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

    public function doubts(SoundForm $form): ?string
    {
        return null;
    }

    public function carriesSound(SoundForm $form): bool
    {
        return MatroskaTrack::carries($form, $this->web);
    }

    public function carriesCompanion(string $coding): bool
    {
        return $this->web ? str_starts_with($coding, 'D_WEBVTT/') : str_starts_with($coding, 'S_') || str_starts_with($coding, 'D_WEBVTT/') || SubtitleText::isPlain($coding);
    }

    public function encodes(): OutputFormat
    {
        return $this->web ? new OpusOutput : new FlacOutput;
    }

    public function writer(ByteSink $sink, PictureStream $picture, int $first, array $sounds, Tags $tags, array $chapters, float $seconds, array $companions = [], array $attachments = []): FilmWriter
    {
        return new MatroskaFilmWriter($sink, $this->web ? 'webm' : 'matroska', $picture, $first, $sounds, $tags, $chapters, $companions, $this->web ? [] : $attachments);
    }
}
