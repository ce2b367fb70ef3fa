<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** How much something stands in the way. */
enum Severity: string
{
    case Stop = 'stop';
    case Warn = 'warn';
    case Note = 'note';
}
