<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\Stretch;

/** A file in which uncompressed samples stand as they are. */
interface StretchWriter extends SoundWriter
{
    public function copy(Stretch $samples): void;
}
