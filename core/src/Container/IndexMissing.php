<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Failure;

/** A recording without the index that says where its sound is. */
final class IndexMissing extends Failure
{
    public static function at(string $path): self
    {
        return new self('The recording was never finished: its index is missing, so nothing says where its sound lies; play it on the '
            .'device that made it, which often completes it, and copy it again.', $path);
    }

    /** A part of a stream that was saved without the part that tells how to read all of them. */
    public static function segment(string $path): self
    {
        return new self('This is one segment of a stream: how its sound is to be read stands in the stream’s first part (the '
            .'initialization segment); put that before it, or save the stream as one file.', $path);
    }

    public function code(): string
    {
        return 'index-missing';
    }
}
