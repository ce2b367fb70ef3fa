<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Failure;

/** A time that cannot be read, or that the sound does not have. */
final class InvalidTime extends Failure
{
    public static function unreadable(string $text): self
    {
        return new self(sprintf('The time “%s” cannot be read; write it like 1:02:03.5, 62.5, 48000# for samples or 250f for picture '
            .'frames.', mb_substr($text, 0, 40)));
    }

    public static function noPictures(string $text): self
    {
        return new self(sprintf('The time “%s” counts picture frames, but the source has no picture with a steady rate; write it like '
            .'1:02.5.', mb_substr($text, 0, 40)));
    }

    public static function beyond(string $begin, string $end): self
    {
        return new self(sprintf('A piece begins at %s, but the sound ends at %s; move its begin.', $begin, $end));
    }

    public static function turned(string $begin, string $end): self
    {
        return new self(sprintf('A piece ends at %s, before it begins at %s; exchange the two.', $end, $begin));
    }

    public static function empty(string $begin): self
    {
        return new self(sprintf('A piece begins and ends at %s, so there is nothing in it; move one of its ends.', $begin));
    }

    public static function noChapters(): self
    {
        return new self('The source has no chapters, so it cannot be cut by them; say the pieces as times.');
    }

    public static function noSound(): self
    {
        return new self('There is nothing but silence below that level, so nothing would be left; choose a lower one.');
    }

    public static function silences(string $text): self
    {
        return new self(sprintf('The silences “%s” cannot be read; write them like silences:-45:0.7, the level in dBFS and the least '
            .'length in seconds.', mb_substr($text, 0, 40)));
    }

    public static function pieces(string $text): self
    {
        return new self(sprintf('The pieces “%s” cannot be read; write them like 0:05-0:10,1:00-end.', mb_substr($text, 0, 80)));
    }

    public function code(): string
    {
        return 'wrong-moment';
    }
}
