<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * Takes the raised treble of recordings with pre-emphasis down again, in the stretches that have it: the curve of 50 and 15 microseconds
 * of IEC 60908 (|H|² = (1 + ω²·τ₂²) / (1 + ω²·τ₁²)). A filter of first order meets it at 0, 7,000 and 17,000 Hz, and within 0.12 dB up to
 * 20 kHz; its response is computed as a sum of so many taps that nothing is left of it.
 */
final class Deemphasis implements Stage
{
    private const LONG = 50e-6;

    private const SHORT = 15e-6;

    /** Hz at which the filter meets the curve. */
    private const MEETS = [7000.0, 17_000.0];

    /** The pole lies near 0.63, so that after so many taps less than 2⁻³⁴ is left. */
    private const TAPS = 52;

    /** @var non-empty-list<float> */
    private readonly array $taps;

    private int $at = 0;

    /** The last frames of the stretch that is being heard, silence before its begin. */
    private readonly FloatBuffer $history;

    /**
     * @param  list<Piece>  $stretches  in frames of what comes in, in order, none overlapping
     * @param  int  $rate  Hz
     *
     * @throws BlockTooLarge
     */
    public function __construct(private readonly array $stretches, int $rate, private readonly int $channels)
    {
        $this->taps = self::response($rate);
        $this->history = new FloatBuffer(self::TAPS * $channels);
    }

    /** Level of the curve at a frequency, in decibels. */
    public static function curve(float $hertz): float
    {
        return 10 * log10(self::square($hertz));
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(Block $block): iterable
    {
        $begin = $this->at;
        $this->at += $block->frames;
        for ($from = $begin; $from < $this->at; $from = $until) {
            $stretch = $this->next($from);
            $isWithin = $stretch !== null && $stretch->from <= $from;
            $until = $stretch === null ? $this->at : min($this->at, $isWithin ? $stretch->until : $stretch->from);
            $part = $block->part($from - $begin, $until - $from);
            yield $isWithin ? $this->filtered($part, $from === $stretch->from) : $part;
        }
    }

    public function finish(): iterable
    {
        return [];
    }

    /** The stretch that a frame lies in, or the next one after it. */
    private function next(int $frame): ?Piece
    {
        foreach ($this->stretches as $stretch) {
            if ($stretch->until > $frame) {
                return $stretch;
            }
        }

        return null;
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function filtered(Block $block, bool $begins): Block
    {
        $before = self::TAPS * $this->channels;
        if ($begins) {
            $this->history->silence(0, $before);
        }
        $count = $block->samples();
        $in = new FloatBuffer($before + $count);
        $in->copy(0, $this->history, 0, $before);
        $in->copy($before, $block->buffer, $block->first(), $count);
        $out = new FloatBuffer($count);
        foreach ($this->taps as $tap => $value) {
            VectorMath::get()->add($out, 0, $in, $before - $tap * $this->channels, $count, $value);
        }
        $this->history->copy(0, $in, $count, $before);

        return new Block($out, $block->frames, $this->channels);
    }

    /** @return non-empty-list<float> */
    private static function response(int $rate): array
    {
        // |H|² of such a filter is (p₀ + p₁ cos ω) / (1 + q cos ω): one at 0 Hz, and two equations more.
        [[$c, $h], [$d, $k]] = array_map(fn (float $hertz): array => [cos(2 * M_PI * min($hertz, 0.45 * $rate) / $rate),
            self::square(min($hertz, 0.45 * $rate))], self::MEETS);
        $determinant = ($c - 1) * (1 - $k * $d) - ($d - 1) * (1 - $h * $c);
        $p1 = (($h - 1) * (1 - $k * $d) - ($k - 1) * (1 - $h * $c)) / $determinant;
        $q = (($c - 1) * ($k - 1) - ($d - 1) * ($h - 1)) / $determinant;
        $p0 = 1 + $q - $p1;
        $root = fn (float $x0, float $x1): float => ($x0 - sqrt($x0 * $x0 - $x1 * $x1)) / $x1;
        [$pole, $zero] = [-$root(1.0, $q), $root($p0, $p1)];
        // The response to one sample, so scaled that 0 Hz passes as it is.
        $taps = [1.0];
        for ($tap = 1, $value = $pole + $zero; $tap < self::TAPS; $tap++, $value *= $pole) {
            $taps[] = $value;
        }
        $sum = array_sum($taps);

        return array_map(fn (float $tap): float => $tap / $sum, $taps);
    }

    private static function square(float $hertz): float
    {
        $turn = 2 * M_PI * $hertz;

        return (1 + ($turn * self::SHORT) ** 2) / (1 + ($turn * self::LONG) ** 2);
    }
}
