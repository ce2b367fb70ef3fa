<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\Stretch;

/** A file in which packets stand as they are, with nothing between them. */
interface StretchWriter extends SoundWriter
{
    public function copy(Stretch $packets): void;
}
