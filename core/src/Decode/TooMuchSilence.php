<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Failure;

/** The times of a file leave open more than anybody would fill with silence. */
final class TooMuchSilence extends Failure
{
    public static function seconds(string $path, float $seconds): self
    {
        return new self(sprintf('The times in this file leave %.1f hours open, of which hardly anything is sound; most likely they are '
            .'damaged. Copy the file again from where it came from.', $seconds / 3600), $path);
    }

    public function code(): string
    {
        return 'too-much-silence';
    }
}
