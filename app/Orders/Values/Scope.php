<?php

declare(strict_types=1);

namespace App\Orders\Values;

/** Which lines of an order a change is for. */
enum Scope: string
{
    case Line = 'line';
    case Marked = 'marked';
    case All = 'all';

    /** The only line of an order: what it is asked is asked of the order, but for what only this source can have. */
    case Alone = 'alone';
}
