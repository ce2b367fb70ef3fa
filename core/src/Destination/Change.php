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

    /** How a source stands to the destination, in a few words. */
    public function label(): string
    {
        return match ($this) {
            self::None => 'accepted as it is',
            self::Remux => 'another container',
            self::Remake => 'sound remade',
            self::Impossible => 'not accepted',
        };
    }
}
