<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Failure;

/** What is said of a file without a header is not understood. */
final class HeaderlessFormatUnknown extends Failure
{
    public static function text(string $text, string $kinds): self
    {
        return new self(sprintf('“%s” does not say what a file without a header holds; write kind, rate and channels like '
            .'pcm16:48000:2, with one of these kinds: %s.', $text, $kinds));
    }

    public function code(): string
    {
        return 'raw-form-unknown';
    }
}
