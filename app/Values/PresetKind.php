<?php

declare(strict_types=1);

namespace App\Values;

enum PresetKind: string
{
    case Recipe = 'recipe';
    case Destination = 'destination';

    /** What several are called. */
    public function plural(): string
    {
        return $this === self::Recipe ? 'Recipes' : 'Destinations';
    }
}
