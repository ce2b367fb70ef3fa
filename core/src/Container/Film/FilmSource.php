<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Film;

use Octavox\Core\Container\Media;
use Octavox\Core\Container\Track;

/** An opened source whose pictures can be copied. */
interface FilmSource extends Media
{
    /** Null where the pictures cannot be copied out of this container. */
    public function pictureStream(Track $track): ?PictureStream;

    /** @return iterable<PictureSample> */
    public function pictures(Track $track): iterable;
}
