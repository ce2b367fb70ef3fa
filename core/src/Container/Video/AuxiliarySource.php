<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Media\Track;

/** An opened source that can hold subtitles and time codes. */
interface AuxiliarySource extends VideoSource
{
    /** Null for tracks that are something else. */
    public function auxiliary(Track $track): ?AuxiliaryTrack;

    /** @return iterable<AuxiliarySample> in the order of time */
    public function auxiliarySamples(Track $track): iterable;
}
