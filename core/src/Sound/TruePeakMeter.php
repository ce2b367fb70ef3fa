<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\Rows;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * The highest value between samples, found with four times as many: ITU-R BS.1770-4, annex 2.
 *
 * Stretches whose samples are so low that nothing between them can be higher than what was found already are passed over.
 */
final class TruePeakMeter implements PlanarMeter
{
    /** The four phases of the interpolating filter: BS.1770-4, annex 2, table 1; the last two are the first two turned round. */
    private const PHASES = [
        [0.0017089843750, 0.0109863281250, -0.0196533203125, 0.0332031250000, -0.0594482421875, 0.1373291015625, 0.9721679687500,
            -0.1022949218750, 0.0476074218750, -0.0266113281250, 0.0148925781250, -0.0083007812500],
        [-0.0291748046875, 0.0292968750000, -0.0517578125000, 0.0891113281250, -0.1665039062500, 0.4650878906250, 0.7797851562500,
            -0.2003173828125, 0.1015625000000, -0.0582275390625, 0.0330810546875, -0.0189208984375],
    ];

    private const TAPS = 12;

    /** Samples that one row of the product gives values for. */
    private const ROW = 16;

    /** Frames of which it is asked first whether anything in them can be higher than what was found. */
    private const STRETCH = 4096;

    /** Stretches looked at together. */
    private const TOGETHER = 4;

    /** @var array<int, FloatBuffer> the last samples of the run before, then the run */
    private array $held = [];

    /** @var array<int, float> */
    private array $peaks = [];

    private readonly FloatBuffer $own;

    private readonly FloatBuffer $before;

    private readonly FloatBuffer $between;

    /** How much higher than the samples around it a value between them can be. */
    private readonly float $most;

    /** @throws BlockTooLarge */
    public function __construct()
    {
        $phases = [self::PHASES[0], self::PHASES[1], array_reverse(self::PHASES[1]), array_reverse(self::PHASES[0])];
        $own = $before = [];
        foreach (range(0, self::ROW - 1) as $sample) {
            foreach ($phases as $taps) {
                // The newest sample meets the first tap; what reaches back beyond the row is taken from the row before.
                $row = [...array_fill(0, self::ROW - self::TAPS + 1 + $sample, 0.0), ...array_reverse($taps),
                    ...array_fill(0, self::ROW - 1 - $sample, 0.0)];
                array_push($before, ...array_slice($row, self::ROW - self::TAPS + 1, self::TAPS - 1));
                array_push($own, ...array_slice($row, self::ROW));
            }
        }
        $this->own = FloatBuffer::fromBytes(pack('f*', ...$own));
        $this->before = FloatBuffer::fromBytes(pack('f*', ...$before));
        $this->between = new FloatBuffer(4 * self::TOGETHER * self::STRETCH);
        $this->most = max(array_map(fn (array $taps): float => array_sum(array_map(abs(...), $taps)), $phases));
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(array $channels, int $frames): void
    {
        $before = self::ROW;
        foreach ($channels as $channel => $buffer) {
            $held = $this->held[$channel] ??= new FloatBuffer($before + $buffer->capacity);
            $this->peaks[$channel] ??= 0.0;
            $held->copy($before, $buffer, 0, $buffer->capacity);
            for ($from = 0; $from < $frames; $from += max(1, $count) * self::STRETCH) {
                $count = $this->promising($held, $from, $frames, $this->peaks[$channel]);
                $this->peaks[$channel] = max($this->peaks[$channel], $this->highest($held, $from, $count * self::STRETCH));
            }
            $held->put(0, $held->bytes($frames, $before));
        }
    }

    /** @return list<float> of each channel, 1.0 is full scale */
    public function peaks(): array
    {
        return array_values($this->peaks);
    }

    /** Takes in what another meter has found in the same sound. */
    public function join(self $other): void
    {
        foreach ($other->peaks as $channel => $peak) {
            $this->peaks[$channel] = max($this->peaks[$channel] ?? 0.0, $peak);
        }
    }

    /** @return list<array<int, float>> without filters: it is for joining only */
    public function __serialize(): array
    {
        return [$this->peaks];
    }

    /** @param  list<array<int, float>>  $state */
    public function __unserialize(array $state): void
    {
        $this->peaks = $state[0] ?? [];
    }

    /**
     * How many stretches from here on can hold something higher than what was found, no more than are looked at together.
     *
     * @throws LibraryMissing
     */
    private function promising(FloatBuffer $held, int $from, int $frames, float $found): int
    {
        for ($count = 0; $count < self::TOGETHER && $from < $frames; $count++, $from += self::STRETCH) {
            if (VectorMath::get()->peak($held, $from, self::STRETCH + self::ROW) * $this->most <= $found) {
                break;
            }
        }

        return $count;
    }

    /**
     * The highest value of and between samples, 0 for none.
     *
     * @throws LibraryMissing
     */
    private function highest(FloatBuffer $held, int $from, int $frames): float
    {
        if ($frames === 0) {
            return 0.0;
        }
        $rows = intdiv($frames, self::ROW);
        $reach = self::TAPS - 1;
        VectorMath::get()->multiply(new Rows($held, $from + self::ROW, self::ROW, $rows, self::ROW), $this->own, $this->between, 0,
            4 * self::ROW);
        VectorMath::get()->multiply(new Rows($held, $from + self::ROW - $reach, self::ROW, $rows, $reach), $this->before,
            $this->between, 0, 4 * self::ROW, true);

        return max(VectorMath::get()->peak($held, $from, $frames + self::ROW), VectorMath::get()->peak($this->between, 0, 4 * $frames));
    }
}
