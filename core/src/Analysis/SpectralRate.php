<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * The rate at which the spectrum of some sound falls off as that of speech does on the long mean (D. Byrne et al., "An international
 * comparison
 * of long-term average speech spectra", J. Acoust. Soc. Am. 96, 1994), which that of music resembles.
 */
final class SpectralRate
{
    private const LAGS = 256;

    /**
     * By how many dB a rate must fit better: what was recorded at a higher one and dully looks like the lowest, what hisses like the
     * highest.
     */
    private const AHEAD = [8000 => 1.3, 44_100 => 0.8];

    /** Third-octave levels of that mean, dB, by the middle of each band in Hz. */
    private const SPEECH = [63 => 38.6, 80 => 43.5, 100 => 54.4, 125 => 57.7, 160 => 56.8, 200 => 60.2, 250 => 60.3,
        315 => 59.0, 400 => 62.1,
        500 => 62.1, 630 => 60.5, 800 => 56.8, 1000 => 53.7, 1250 => 53.0, 1600 => 52.0, 2000 => 48.7, 2500 => 48.1,
        3150 => 46.8, 4000 => 45.6,
        5000 => 44.5, 6300 => 44.3, 8000 => 43.7, 10_000 => 43.4, 12_500 => 41.3, 16_000 => 40.7];

    /**
     * @param  iterable<?Block>  $blocks  each good until the next is asked for
     * @param  non-empty-list<int>  $rates  Hz, of which one is chosen
     *
     * @throws LibraryMissing
     */
    public static function guess(iterable $blocks, array $rates): int
    {
        $spectrum = self::spectrum($blocks);
        $best = $rates[0];
        $least = INF;
        foreach ($rates as $rate) {
            $differs = self::differs($spectrum, $rate) + (self::AHEAD[$rate] ?? 0.0);
            if ($differs < $least) {
                [$least, $best] = [$differs, $rate];
            }
        }

        return $best;
    }

    /**
     * Power by R. B. Blackman and J. W. Tukey's way, over the correlations.
     *
     * @param  iterable<?Block>  $blocks
     * @return list<float> dB from 0 to half the rate
     *
     * @throws LibraryMissing
     */
    private static function spectrum(iterable $blocks): array
    {
        $correlations = array_fill(0, self::LAGS + 1, 0.0);
        foreach ($blocks as $block) {
            for ($lag = 0; $block !== null && $lag <= self::LAGS; $lag++) {
                $correlations[$lag] += VectorMath::get()->product($block->buffer, $block->first(), $block->channels, $block->buffer,
                    $block->first() + $lag * $block->channels, $block->channels, max(0, $block->frames - $lag));
            }
        }
        $spectrum = [];
        for ($line = 0; $line <= self::LAGS; $line++) {
            $power = $correlations[0];
            for ($lag = 1; $lag <= self::LAGS; $lag++) {
                $power += 2 * $correlations[$lag] * self::window($lag / self::LAGS) * cos(M_PI * $line * $lag / self::LAGS);
            }
            $spectrum[] = 10 * log10(max(1e-7, $power / max(1e-12, $correlations[0])));
        }

        return $spectrum;
    }

    /** E. Parzen's: with it no power comes out below nothing. */
    private static function window(float $lag): float
    {
        return $lag < 0.5 ? 1 - 6 * $lag ** 2 + 6 * $lag ** 3 : 2 * (1 - $lag) ** 3;
    }

    /** @param  list<float>  $spectrum */
    private static function differs(array $spectrum, int $rate): float
    {
        $differences = [];
        foreach (self::SPEECH as $hertz => $level) {
            $line = 2 * $hertz * self::LAGS / $rate;
            // A third of an octave is so wide that its level grows with it; what cannot be resolved is not asked.
            if ($line >= 1.5 && $line < 0.96 * self::LAGS) {
                $differences[] = $spectrum[(int) round($line)] - ($level - 10 * log10($hertz));
            }
        }
        $mean = array_sum($differences) / max(1, count($differences));

        return sqrt(array_sum(array_map(fn (float $one): float => ($one - $mean) ** 2, $differences)) / max(1, count($differences)));
    }
}
