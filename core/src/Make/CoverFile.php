<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Failure;
use Octavox\Core\Tag\Cover;

/** A picture that lies in a file of its own. */
final class CoverFile
{
    /** @throws Failure where it cannot be read, or is not JPEG nor PNG */
    public static function read(string $path): Cover
    {
        $bytes = FileBytes::open($path);
        if ($bytes->size() > Cover::MOST_BYTES) {
            throw CoverUnusable::large($path, $bytes->size());
        }

        return Cover::recognise($bytes->read(0, $bytes->size())) ?? throw CoverUnusable::unknown($path);
    }
}
