<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Failure;

/** The content is of no format that is known here. */
final class UnknownFormat extends Failure
{
    public static function text(string $path): self
    {
        return new self('This is text, not a recording, whatever its name says; choose the media file itself.', $path);
    }

    public static function zeros(string $path): self
    {
        return new self('The file begins with nothing but zeros, so it was probably never written to the end; copy it again from the '
            .'device it came from.', $path);
    }

    public static function other(string $path): self
    {
        return new self('The content is of no format that Octavox knows; check that this is the media file itself and that it opens '
            .'elsewhere.', $path);
    }

    public function code(): string
    {
        return 'unknown-format';
    }
}
