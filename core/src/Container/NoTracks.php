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

    public function code(): string
    {
        return 'no-tracks';
    }
}
