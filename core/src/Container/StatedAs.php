<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Failure;

/** How bytes are to be opened that do not say it, or that hold more than one recording. */
interface StatedAs extends \Stringable
{
    /** @throws Failure */
    public function open(ByteSource $bytes): Demuxer;
}
