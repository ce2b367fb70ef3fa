<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** Duration (in ticks) and size (in bytes) of samples that a fragment does not state: ISO/IEC 14496-12, 8.8.3. */
final readonly class FragmentDefaults
{
    public function __construct(public int $duration, public int $size) {}
}
