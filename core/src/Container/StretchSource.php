<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Failure;
use Octavox\Core\Media\Track;

/** A container whose uncompressed samples stand together over long stretches. */
interface StretchSource extends Demuxer
{
    /** Bytes after which somebody may want to know how far it is. */
    public const MOST_BYTES = 4_194_304;

    /**
     * The samples of a sound track.
     *
     * @param  int  $from  first sample wanted
     * @param  int  $until  first sample no longer wanted
     * @return ?iterable<Stretch> null where they are not uncompressed, or stand in many small parts
     *
     * @throws Failure
     */
    public function stretches(Track $track, int $from, int $until): ?iterable;
}
