<?php

declare(strict_types=1);

namespace App\Values;

enum PresetKind: string
{
    case Recipe = 'recipe';
    case Destination = 'destination';
}
