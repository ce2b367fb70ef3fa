<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Sound\Biquad;
use Octavox\Core\Sound\BlockFilter;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;
use Octavox\Core\Sound\PlanarMeter;

/** Compares the two sides of a stereo track: how alike their waves, their levels over time and their spectra are. */
final class StereoMeter implements PlanarMeter
{
    /** Spectra are looked at in one of so many runs. */
    private const SPECTRUM_EVERY = 12;

    /** Hz above which a microphone far off hears less than one on the chest. */
    private const TREBLE = 3000.0;

    private const BASS = 250.0;

    /** Windows of this many frames are compared. */
    private const WINDOW = 4096;

    private float $left = 0.0;

    private float $right = 0.0;

    private float $both = 0.0;

    /** @var list<float> mean squares of the left side in each window */
    private array $lefts = [];

    /** @var list<float> and of the right */
    private array $rights = [];

    /** @var array{float, float, float, float, float, float} of each side: all, bass, treble */
    private array $bands = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0];

    private int $runs = 0;

    private int $frames = 0;

    private ?FloatBuffer $room = null;

    /** @var list<BlockFilter> bass and treble of the left side, then of the right */
    private readonly array $filters;

    /**
     * @param  int  $rate  Hz
     *
     * @throws BlockTooLarge
     */
    public function __construct(int $rate)
    {
        $bass = Biquad::pass($rate, self::BASS, false);
        $treble = Biquad::pass($rate, self::TREBLE, true);
        $this->filters = [new BlockFilter($bass, $bass), new BlockFilter($treble, $treble), new BlockFilter($bass, $bass),
            new BlockFilter($treble, $treble)];
    }

    /**
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    public function take(array $channels, int $frames): void
    {
        [$left, $right] = $channels;
        $vector = VectorMath::get();
        for ($from = 0; $from < $frames; $from += self::WINDOW) {
            $count = min(self::WINDOW, $frames - $from);
            $energies = [$vector->energy($left, $from, $count), $vector->energy($right, $from, $count)];
            $this->left += $energies[0];
            $this->right += $energies[1];
            $this->both += $vector->product($left, $from, 1, $right, $from, 1, $count);
            if ($count === self::WINDOW) {
                $this->lefts[] = $energies[0] / $count;
                $this->rights[] = $energies[1] / $count;
            }
        }
        if ($this->runs++ % self::SPECTRUM_EVERY === 0) {
            $this->spectrum($left, $right, $frames);
        }
        $this->frames += $frames;
    }

    /** Takes in what another meter has measured of the same sound. */
    public function join(self $other): void
    {
        $this->left += $other->left;
        $this->right += $other->right;
        $this->both += $other->both;
        array_push($this->lefts, ...$other->lefts);
        array_push($this->rights, ...$other->rights);
        foreach ($other->bands as $band => $energy) {
            $this->bands[$band] += $energy;
        }
    }

    /**
     * @return array{float, float, float, list<float>, list<float>, array{float, float, float, float, float, float}} without filters: it is
     * for joining only
     */
    public function __serialize(): array
    {
        return [$this->left, $this->right, $this->both, $this->lefts, $this->rights, $this->bands];
    }

    /** @param  array{float, float, float, list<float>, list<float>, array{float, float, float, float, float, float}}  $state */
    public function __unserialize(array $state): void
    {
        [$this->left, $this->right, $this->both, $this->lefts, $this->rights, $this->bands] = $state;
        $this->filters = [];
    }

    public function image(): StereoImage
    {
        $loudest = max([0.0, ...$this->lefts, ...$this->rights]);
        $gaps = [];
        foreach ($this->lefts as $index => $left) {
            // Windows in which somebody is heard: no more than 40 dB below the loudest.
            if (max($left, $this->rights[$index]) > $loudest * 1e-4) {
                $gaps[] = 10 * log10(($left + 1e-12) / ($this->rights[$index] + 1e-12));
            }
        }
        $mean = $gaps === [] ? 0.0 : array_sum($gaps) / count($gaps);
        $spread = $gaps === [] ? 0.0 : sqrt(array_sum(array_map(fn (float $gap): float => ($gap - $mean) ** 2, $gaps)) / count($gaps));

        return new StereoImage(
            $this->left > 0 && $this->right > 0 ? $this->both / sqrt($this->left * $this->right) : 0.0,
            $this->left > 0 || $this->right > 0 ? ($this->left + $this->right - 2 * $this->both) / ($this->left + $this->right) : 0.0,
            10 * log10(($this->left + 1e-12) / ($this->right + 1e-12)),
            $spread,
            self::tilt($this->bands[2], $this->bands[0]) - self::tilt($this->bands[5], $this->bands[3]),
            self::tilt($this->bands[1], $this->bands[0]) - self::tilt($this->bands[4], $this->bands[3]),
            count($gaps),
        );
    }

    private static function tilt(float $band, float $all): float
    {
        return 10 * log10(($band + 1e-12) / ($all + 1e-12));
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function spectrum(FloatBuffer $left, FloatBuffer $right, int $frames): void
    {
        $step = BlockFilter::step();
        $whole = intdiv($frames + $step - 1, $step) * $step;
        $this->room ??= new FloatBuffer($left->capacity);
        foreach ([$left, $right] as $side => $buffer) {
            $this->bands[3 * $side] += VectorMath::get()->energy($buffer, 0, $frames);
            foreach ([0, 1] as $band) {
                // What a filter still holds from the run before is over within a few milliseconds.
                $this->filters[2 * $side + $band]->filter($buffer, 0, $this->room, 0, $whole);
                $this->bands[3 * $side + 1 + $band] += VectorMath::get()->energy($this->room, 0, $frames);
            }
        }
    }
}
