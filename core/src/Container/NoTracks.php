<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Failure;

/** A file that is whole but holds nothing. */
final class NoTracks extends Failure
{
    public static function at(string $path): self
    {
        return new self('The file has an index but no tracks in it, so there is neither sound nor picture to take; export it again from '
            .'the program that made it.', $path);
    }

    /** A header that announces sound, and nothing behind it. */
    public static function noSound(string $path): self
    {
        return new self('The file has the head of a recording and no sound in it: nothing was recorded, or it was never written. Copy it '
            .'again from where it came from.', $path);
    }

    /** The stream of a video without the container that holds its sound. */
    public static function picturesAlone(string $path): self
    {
        return new self('This is the picture of a video alone, without any sound; take the file that holds both, or the one with its '
            .'sound.', $path);
    }

    public function code(): string
    {
        return 'no-tracks';
    }
}
