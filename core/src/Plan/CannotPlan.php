<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;

/** What is wished cannot be made of this source. */
final class CannotPlan extends Failure
{
    public static function noSound(string $path): self
    {
        return new self('This file has no sound track, so there is no sound to take from it; bring in the recording that was made beside it.', $path);
    }

    public static function noSuchTrack(string $path, int $number, string $there): self
    {
        return new self(sprintf('There is no sound track %d in this file; choose one of these: %s.', $number, $there), $path);
    }

    public static function noSuchLanguage(string $path, string $language, string $there): self
    {
        return new self(sprintf('There is no sound track in the language %s in this file; it has these: %s.', $language, $there), $path);
    }

    public static function emptyTrack(string $path, int $number): self
    {
        return new self(sprintf('Track %d holds no sound at all, so nothing can be made of it; copy the file again from where it came from.', $number), $path);
    }

    public static function stopped(string $path, string $says, string $remedy): self
    {
        return new self($says.' '.$remedy, $path);
    }

    public static function tooManyChannels(string $path, string $format, int $most, string $layout): self
    {
        return new self(sprintf('%s carries %d '.($most === 1 ? 'channel' : 'channels').' at most, but the sound is %s; ask for %s, or for a format that carries it, such as WAV.', $format, $most, $layout, $most === 1 ? 'mono' : 'stereo or mono'), $path);
    }

    public static function noPicture(string $path, string $film): self
    {
        return new self(sprintf('There is no picture in this file, so it cannot become %s; ask for a sound format instead.', $film), $path);
    }

    public static function picture(string $path, string $picture, string $film): self
    {
        return new self(sprintf('The picture is %s, which cannot be copied as it is into %s; choose another kind of video, or take only the sound.', $picture, $film), $path);
    }

    public static function filmSound(string $path, string $film, string $audio): self
    {
        return new self(sprintf('%s cannot carry %s beside its picture; choose another sound format for it.', $film, $audio), $path);
    }

    public static function onlyKept(string $format, string $audio): self
    {
        return new self(sprintf('%s can be copied untouched from a source that has it, but not made of %s here; choose a format that can be made, such as FLAC or WAV.', $format, $audio));
    }

    public static function silence(string $path, int $number, float $seconds): self
    {
        return new self(sprintf('Track %d would be %s of silence with hardly any sound in it, which is most likely a mistake in the file’s times; take the sound without its picture out of another copy.', $number, sprintf($seconds < 360_000 ? '%.1f hours' : '%.3g hours', $seconds / 3600)), $path);
    }

    public static function filmPieces(string $path): self
    {
        return new self('Pictures are kept whole, so a video cannot be cut into pieces here; take its sound alone, or leave the pieces out.', $path);
    }

    public static function notAlike(string $path, int $number): self
    {
        return new self(sprintf('Track %d cannot be joined with the others: tracks that become one sound must be of one rate and all be decodable.', $number), $path);
    }

    public static function noLength(string $path): self
    {
        return new self(sprintf('%s has no picture whose length is known, so its sound cannot be made as long as that; leave the length to the sound.', basename($path)));
    }

    public static function rate(int $rate): self
    {
        return new self(sprintf('A rate of %s Hz cannot be made; choose one between 4,000 and 384,000 Hz.', number_format($rate)));
    }

    public function code(): string
    {
        return 'cannot-plan';
    }
}
