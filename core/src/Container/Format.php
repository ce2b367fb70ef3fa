<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Failure;

/** One container format that can be read. */
interface Format
{
    /** Whether the content, never the name, is of this format. */
    public function recognises(ByteSource $bytes): bool;

    /** @throws Failure */
    public function open(ByteSource $bytes): Demuxer;
}
