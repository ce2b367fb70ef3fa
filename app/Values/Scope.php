<?php

declare(strict_types=1);

namespace App\Values;

/** Which lines of an order a change is for. */
enum Scope: string
{
    case Line = 'line';
    case Marked = 'marked';
    case All = 'all';
}
