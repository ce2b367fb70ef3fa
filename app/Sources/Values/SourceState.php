<?php

declare(strict_types=1);

namespace App\Sources\Values;

enum SourceState: string
{
    case Reading = 'reading';
    case Ready = 'ready';
    case Unreadable = 'unreadable';
}
