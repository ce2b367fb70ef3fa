<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\Stretch;

/** A file with nothing between its packets, which need not be told apart by whoever wants all of them. */
interface BareSource extends Demuxer
{
    /** All packets one after another. */
    public function bare(): Stretch;
}
