<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** How many frames one step of rate conversion took and gave. */
final readonly class ConvertedFrames
{
    public function __construct(public int $used, public int $given) {}
}
