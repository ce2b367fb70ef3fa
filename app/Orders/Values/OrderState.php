<?php

declare(strict_types=1);

namespace App\Orders\Values;

enum OrderState: string
{
    case Draft = 'draft';
    case Placed = 'placed';
}
