<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Media\AudioFormat;

/** One stretch of a chained stream. Counts are samples of the decoded sound. */
final readonly class Link
{
    /**
     * @param  int  $at  where its first page stands
     * @param  int  $end  first byte after its last page
     * @param  int  $base  place of its first decoded sample among those of all links
     * @param  int  $origin  granule position at which its decoded sound begins
     * @param  int  $skip  decoded samples that are not presented
     * @param  int  $samples  that are presented
     * @param  int  $coded  that are decoded
     */
    public function __construct(public int $at, public int $end, public int $serial, public int $headerPackets, public AudioFormat $audio,
        public int $base, public int $origin, public int $skip, public int $samples, public int $coded) {}
}
