<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;
use Octavox\Core\Tag\Cover;

/** A picture cannot be put into a result. */
final class CoverUnusable extends Failure
{
    public static function large(string $path, int $bytes): self
    {
        return new self(sprintf('The cover has %.1f MB, and covers may have %d MB at most; make it smaller and choose it again. Nothing '
            .'was made.', $bytes / 1e6, intdiv(Cover::MOST_BYTES, 1_000_000)), $path);
    }

    public static function unknown(string $path): self
    {
        return new self('The cover is neither a JPEG nor a PNG picture; save it as one of these and choose it again. Nothing was made.',
            $path);
    }

    /** Of what somebody has brought in, before anything is made of it. */
    public static function picture(string $path): self
    {
        return new self('This is no picture that can be a cover: JPEG, PNG, WebP or GIF of at most 40 million pixels. Save it as one of '
            .'these and choose it again; nothing was changed.', $path);
    }

    public function code(): string
    {
        return 'cover-unusable';
    }
}
