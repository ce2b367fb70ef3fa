<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** Loudness after ITU-R BS.1770-4 and its range after EBU Tech 3342, from energies of every tenth of a second. */
final class LoudnessMeter implements PlanarMeter
{
    /** BS.1770-4, annex 1, equation 2. */
    private const OFFSET = -0.691;

    /** LUFS below which nothing counts: BS.1770-4, annex 1, equation 6. */
    private const ABSOLUTE_GATE = -70.0;

    /** LU below the mean: BS.1770-4, annex 1, equation 7, and Tech 3342, 2.2. */
    private const RELATIVE_GATE = -10.0;

    private const RANGE_GATE = -20.0;

    /** Tenths of a second: 400 ms with overlaps of 75 %, and 3 s. */
    private const MOMENTARY = 4;

    private const SHORT_TERM = 30;

    /** @var list<BlockFilter> */
    private array $filters = [];

    /** @var list<float> */
    private readonly array $weights;

    /** @var list<float> mean square of each tenth, weighted and added over the channels */
    private array $tenths = [];

    /** @var array<int, list<float>> the same of each channel alone, without weight */
    private array $alone = [];

    /** @var array<int, float> */
    private array $energy = [];

    private int $frames = 0;

    private int $tenthBegan = 0;

    /** Frames of the first tenth of a second that were measured: fewer where measuring began within one. */
    private int $firstFrames = 0;

    private bool $warming = false;

    private FloatBuffer $filtered;

    /**
     * @param  int  $begins  the frame of the whole sound at which this meter begins to count
     *
     * @throws BlockTooLarge
     */
    public function __construct(private readonly int $rate, Layout $layout, int $begins = 0)
    {
        $this->frames = $this->tenthBegan = $begins;
        $this->weights = array_map(fn (Channel $channel): float => self::weight($channel, $layout), $layout->channels);
        foreach ($this->weights as $ignored) {
            $this->filters[] = new BlockFilter(Biquad::headShelf($rate), Biquad::lowCut($rate));
        }
        $this->filtered = new FloatBuffer(1);
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(array $channels, int $frames): void
    {
        $step = BlockFilter::step();
        $whole = intdiv($frames + $step - 1, $step) * $step;
        if ($this->filtered->capacity < $whole) {
            $this->filtered = new FloatBuffer($whole);
        }
        $parts = $this->warming ? [] : $this->parts($frames);
        $energies = [];
        foreach (array_keys($this->weights) as $channel) {
            $this->filters[$channel]->filter($channels[$channel], 0, $this->filtered, 0, $whole);
            foreach ($parts as $index => [$from, $count]) {
                $energies[$index][$channel] = VectorMath::get()->energy($this->filtered, $from, $count);
            }
        }
        foreach ($parts as $index => [, $count, $ends]) {
            $this->frames += $count;
            foreach ($energies[$index] as $channel => $energy) {
                $this->energy[$channel] = ($this->energy[$channel] ?? 0.0) + $energy;
            }
            if ($ends) {
                $this->endTenth();
            }
        }
    }

    /** As long as this is set, sound only brings the filters to where they would be; it is not counted. */
    public function warm(bool $warming): void
    {
        $this->warming = $warming;
    }

    /** Takes in what another meter has measured of the same sound from where this one ended. */
    public function join(self $later): void
    {
        $partial = $this->frames - $this->tenthBegan;
        if ($later->tenths === [] || $partial === 0) {
            foreach ($later->energy as $channel => $energy) {
                $this->energy[$channel] = ($later->tenths === [] ? $this->energy[$channel] ?? 0.0 : 0.0) + $energy;
            }
            $from = 0;
        } else {
            // The tenth in which one ended and the other began.
            $sum = 0.0;
            foreach ($this->weights as $channel => $weight) {
                $energy = ($this->energy[$channel] ?? 0.0) + ($later->alone[$channel][0] ?? 0.0) * $later->firstFrames;
                $this->alone[$channel][] = $energy / ($partial + $later->firstFrames);
                $sum += $weight * $energy;
            }
            $this->tenths[] = $sum / ($partial + $later->firstFrames);
            $this->energy = $later->energy;
            $from = 1;
        }
        array_push($this->tenths, ...array_slice($later->tenths, $from));
        foreach ($later->alone as $channel => $tenths) {
            $this->alone[$channel] = [...$this->alone[$channel] ?? [], ...array_slice($tenths, $from)];
        }
        $this->frames = $later->frames;
        $this->tenthBegan = $later->tenths === [] ? $this->tenthBegan : $later->tenthBegan;
    }

    /**
     * @return array{int, list<float>, list<float>, array<int, list<float>>, array<int, float>, int, int, int} without filters: it is for
     * joining only
     */
    public function __serialize(): array
    {
        return [$this->rate, $this->weights, $this->tenths, $this->alone, $this->energy, $this->frames, $this->tenthBegan,
            $this->firstFrames];
    }

    /**
     * @param  array{int, list<float>, list<float>, array<int, list<float>>, array<int, float>, int, int, int}  $state
     *
     * @throws BlockTooLarge
     */
    public function __unserialize(array $state): void
    {
        [$this->rate, $this->weights, $this->tenths, $this->alone, $this->energy, $this->frames, $this->tenthBegan,
            $this->firstFrames] = $state;
        $this->filtered = new FloatBuffer(1);
    }

    public function loudness(): Loudness
    {
        $momentary = self::meansOf($this->tenths, self::MOMENTARY);
        $short = self::meansOf($this->tenths, self::SHORT_TERM);

        return new Loudness(self::gated($momentary), self::range($short), self::highest($momentary), self::highest($short));
    }

    /** @return list<?float> LUFS of each channel as if it were heard alone */
    public function alone(): array
    {
        return array_map(fn (int $channel): ?float => self::gated(self::meansOf($this->alone[$channel] ?? [], self::MOMENTARY)),
            array_keys($this->weights));
    }

    private function endTenth(): void
    {
        $frames = max(1, $this->frames - $this->tenthBegan);
        $this->firstFrames = $this->tenths === [] ? $frames : $this->firstFrames;
        $sum = 0.0;
        foreach ($this->energy as $channel => $energy) {
            $this->alone[$channel][] = $energy / $frames;
            $sum += $this->weights[$channel] * $energy;
        }
        $this->tenths[] = $sum / $frames;
        $this->energy = [];
        $this->tenthBegan = $this->frames;
    }

    /** LUFS of a mean square. */
    public static function ofEnergy(float $meanSquare): float
    {
        return self::OFFSET + 10 * log10($meanSquare);
    }

    /** BS.1770-4, annex 1, table 3; a pair in the back counts as surrounds where there is none at the sides (annex 3, table 5). */
    private static function weight(Channel $channel, Layout $layout): float
    {
        $sides = in_array(Channel::SideLeft, $layout->channels, true);

        return match ($channel) {
            Channel::LowFrequency => 0.0,
            Channel::SideLeft, Channel::SideRight => 1.41,
            Channel::BackLeft, Channel::BackRight => $sides ? 1.0 : 1.41,
            default => 1.0,
        };
    }

    /** @return list<array{int, int, bool}> stretches up to the ends of tenths: from, count, whether a tenth ends with it */
    private function parts(int $frames): array
    {
        $parts = [];
        for ($from = 0; $from < $frames; $from += $count) {
            $place = $this->frames + $from;
            $next = intdiv((intdiv($place * 10, $this->rate) + 1) * $this->rate + 9, 10);
            $count = min($frames - $from, $next - $place);
            $parts[] = [$from, $count, $place + $count === $next];
        }

        return $parts;
    }

    /**
     * @param  list<float>  $tenths
     * @return list<float> mean squares of so many tenths, beginning with every tenth
     */
    private static function meansOf(array $tenths, int $length): array
    {
        $means = [];
        $sum = 0.0;
        foreach ($tenths as $index => $tenth) {
            $sum += $tenth;
            if ($index >= $length) {
                $sum -= $tenths[$index - $length];
            }
            if ($index >= $length - 1) {
                $means[] = max(0.0, $sum / $length);
            }
        }

        return $means;
    }

    /** @param  list<float>  $means */
    private static function gated(array $means): ?float
    {
        $loud = self::above($means, self::ABSOLUTE_GATE);
        if ($loud === []) {
            return null;
        }
        $gate = self::ofEnergy(array_sum($loud) / count($loud)) + self::RELATIVE_GATE;
        $loud = self::above($loud, $gate);

        return $loud === [] ? null : self::ofEnergy(array_sum($loud) / count($loud));
    }

    /** @param  list<float>  $means  of 3 s: Tech 3342, 2: from the 10th to the 95th percentile */
    private static function range(array $means): ?float
    {
        $loud = self::above($means, self::ABSOLUTE_GATE);
        if ($loud === []) {
            return null;
        }
        $loud = self::above($loud, self::ofEnergy(array_sum($loud) / count($loud)) + self::RANGE_GATE);
        if ($loud === []) {
            return null;
        }
        sort($loud);
        $last = count($loud) - 1;

        return self::ofEnergy($loud[(int) round(0.95 * $last)]) - self::ofEnergy($loud[(int) round(0.10 * $last)]);
    }

    /** @param  list<float>  $means */
    private static function highest(array $means): ?float
    {
        $most = $means === [] ? 0.0 : max($means);

        return $most > 0.0 && self::ofEnergy($most) > self::ABSOLUTE_GATE ? self::ofEnergy($most) : null;
    }

    /**
     * @param  list<float>  $means
     * @return list<float>
     */
    private static function above(array $means, float $gate): array
    {
        $least = 10 ** (($gate - self::OFFSET) / 10);

        return array_values(array_filter($means, fn (float $mean): bool => $mean > $least));
    }
}
