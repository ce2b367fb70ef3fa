<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Failure;

/** A source has no such sound. */
final class TrackMissing extends Failure
{
    public static function sound(string $path): self
    {
        return new self('This file has no sound track, so there is no sound to take from it; bring in the recording that was made '
            .'beside it.', $path);
    }

    public static function number(string $path, int $number): self
    {
        return new self(sprintf('There is no sound track %d in this file; read it again to see which there are.', $number), $path);
    }

    public function code(): string
    {
        return 'track-missing';
    }
}
