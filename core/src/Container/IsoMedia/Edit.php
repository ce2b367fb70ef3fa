<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** One entry of an edit list: ISO/IEC 14496-12, 8.6.6. */
final readonly class Edit
{
    /**
     * @param  int  $duration  ticks of the movie; 0 in fragmented files means to the end
     * @param  int  $mediaTime  ticks of the media, −1 for an empty stretch
     */
    public function __construct(public int $duration, public int $mediaTime) {}
}
