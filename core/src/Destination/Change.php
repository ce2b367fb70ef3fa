<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

/** How much of a source must change to be accepted, from the least to the most. */
enum Change: string
{
    case None = 'none';
    case Remux = 'remux';
    case Remake = 'remake';
    case Impossible = 'impossible';
}
