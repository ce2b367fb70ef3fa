<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** How much something stands in the way. */
enum Severity: string
{
    case Stop = 'stop';
    case Warn = 'warn';
    case Note = 'note';

    /** The heaviest of several; null where there is none. */
    public static function worst(?self ...$all): ?self
    {
        foreach (self::cases() as $one) {
            if (in_array($one, $all, true)) {
                return $one;
            }
        }

        return null;
    }
}
