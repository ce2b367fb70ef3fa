<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Media\Track;

/** A source that has its pictures as one stream of bytes, which its reader cuts: the cut can be checked against that stream. */
interface StreamedPictures extends VideoSource
{
    /** @return iterable<string> all bytes of the elementary stream, read without regard to where pictures begin */
    public function elementaryBytes(Track $track): iterable;
}
