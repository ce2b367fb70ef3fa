<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

/** How many samples later encoded sound comes back. */
final class AacDelay
{
    /** Measured: 576 of look-ahead after one frame of overlap. */
    public const ENCODER = 1600;

    /**
     * The element of low frequencies has twelve spectral lines at the most (ISO/IEC 14496-3, 4.5.2.2.6), of which 2,048 make up the rate;
     * the filter before it has lost half the level a little below, and never lets more pass than this.
     */
    private const LINES = 12;

    private const MOST_HERTZ = 240.0;

    private function __construct() {}

    public static function samples(int $rate, int $channels): int
    {
        return self::ENCODER + (in_array(0, AacLayouts::elements($channels), true) ? self::lag($rate) : 0);
    }

    /**
     * Samples by which the filter holds low frequencies back: two Butterworth filters of second order, each √2 by 2π times its frequency.
     */
    public static function lag(int $rate): int
    {
        return (int) round($rate * M_SQRT2 / (M_PI * self::hertz($rate)));
    }

    /** Where the filter of low frequencies has lost half the level, in Hz. */
    public static function hertz(int $rate): float
    {
        return min(self::MOST_HERTZ, 0.8 * self::LINES * $rate / 2048);
    }
}
