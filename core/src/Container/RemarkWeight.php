<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** How much something stands in the way. */
enum RemarkWeight: string
{
    case Stop = 'stop';
    case Warn = 'warn';
    case Note = 'note';
}
