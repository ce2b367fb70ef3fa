<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** Exact arithmetic on counts of samples and ticks. */
final class Time
{
    /**
     * $value counted at $from a second, counted at $to a second instead; nearest whole number, halves upward.
     *
     * @param  int  $value  0 or more; whatever is too large to be counted gives PHP_INT_MAX
     */
    public static function rescale(int $value, int $from, int $to): int
    {
        if ($from === $to) {
            return $value;
        }
        $from = max(1, $from);
        $whole = intdiv($value, $from);
        if ($to > 0 && $whole >= intdiv(PHP_INT_MAX, $to)) {
            return PHP_INT_MAX;
        }

        return $whole * $to + intdiv(2 * ($value - $whole * $from) * $to + $from, 2 * $from);
    }
}
