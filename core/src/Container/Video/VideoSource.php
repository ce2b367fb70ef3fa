<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Container\Demuxer;
use Octavox\Core\Media\Track;

/** An opened source whose pictures can be copied. */
interface VideoSource extends Demuxer
{
    /** Null where the pictures cannot be copied out of this container. */
    public function pictureStream(Track $track): ?PictureStream;

    /** @return iterable<PictureSample> */
    public function pictures(Track $track): iterable;
}
