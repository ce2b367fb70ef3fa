<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Film;

use Octavox\Core\Container\Track;

/** An opened source that can hold subtitles and time codes. */
interface CompanionSource extends FilmSource
{
    /** Null for tracks that are something else. */
    public function companion(Track $track): ?Companion;

    /** @return iterable<CompanionSample> in the order of time */
    public function companionSamples(Track $track): iterable;
}
