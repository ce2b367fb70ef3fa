<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** A file whose index stands before or behind what it tells of: before, it plays while it is still being fetched. */
interface IndexPlace extends Demuxer
{
    public function indexComesFirst(): bool;
}
