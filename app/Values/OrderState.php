<?php

declare(strict_types=1);

namespace App\Values;

enum OrderState: string
{
    case Draft = 'draft';
    case Placed = 'placed';
}
