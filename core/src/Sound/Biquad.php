<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** A recursive filter of second order: y = b0 x + b1 x₋₁ + b2 x₋₂ − a1 y₋₁ − a2 y₋₂. */
final readonly class Biquad
{
    private function __construct(public float $b0, public float $b1, public float $b2, public float $a1, public float $a2) {}

    /**
     * The shelf of ITU-R BS.1770-4, annex 1, table 1, which stands for the head. The table is for 48 kHz; its analogue prototype
     * (1681.97 Hz, 4.00 dB, Q 0.7072) gives the same response at other rates.
     *
     * @param  int  $rate  Hz
     */
    public static function headShelf(int $rate): self
    {
        $k = tan(M_PI * min(1681.974450955533, 0.45 * $rate) / $rate);
        $high = 10 ** (3.999843853973347 / 20);
        $band = $high ** 0.4996667741545416;
        $q = 0.7071752369554196;
        $a0 = 1 + $k / $q + $k * $k;

        return new self(($high + $band * $k / $q + $k * $k) / $a0, 2 * ($k * $k - $high) / $a0, ($high - $band * $k / $q + $k * $k) / $a0,
            2 * ($k * $k - 1) / $a0, (1 - $k / $q + $k * $k) / $a0);
    }

    /** The high-pass of ITU-R BS.1770-4, annex 1, table 2, from its analogue prototype (38.14 Hz, Q 0.5003). */
    public static function lowCut(int $rate): self
    {
        $k = tan(M_PI * 38.13547087602444 / $rate);
        $q = 0.5003270373238773;
        $a0 = 1 + $k / $q + $k * $k;

        return new self(1.0, -2.0, 1.0, 2 * ($k * $k - 1) / $a0, (1 - $k / $q + $k * $k) / $a0);
    }

    /** A Butterworth low-pass or high-pass of second order, by the bilinear transform. */
    public static function pass(int $rate, float $hertz, bool $high): self
    {
        $k = tan(M_PI * min($hertz, 0.45 * $rate) / $rate);
        $a0 = 1 + M_SQRT2 * $k + $k * $k;
        $b = $high ? 1 / $a0 : $k * $k / $a0;

        return new self($b, $high ? -2 * $b : 2 * $b, $b, 2 * ($k * $k - 1) / $a0, (1 - M_SQRT2 * $k + $k * $k) / $a0);
    }
}
