<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

/**
 * Places what follows each other without a gap but for where recordings were put together, in whole steps: each packet stands nearest to
 * its time, none on another. So the place of a packet is the same whether those before it were counted or not.
 */
final class StepClock implements PacketClock
{
    /** Seconds after which a gap is none any more, but damage. */
    private const LONGEST_GAP = 3600;

    private ?int $expected = null;

    /** Samples at the start of the packet that was placed last which another has already. */
    private int $over = 0;

    /**
     * @param  int  $rate  Hz
     * @param  int  $step  samples of a frame; 1 where packets can be cut anywhere
     */
    public function __construct(private readonly int $rate, private readonly int $step) {}

    public function place(?int $tick, int $samples): ?int
    {
        $this->over = 0;
        $stated = $tick === null ? null : (int) round($tick * $this->rate / ElementaryReader::TICKS);
        $place = $this->expected ?? ($stated === null ? 0 : self::nearest($stated / $this->step) * $this->step);
        $steps = $stated === null ? 0 : self::nearest(($stated - $place) / $this->step);
        // Times are rounded to ticks: single samples say nothing.
        if ($steps > ($this->step === 1 ? 1 : 0) && $steps * $this->step < self::LONGEST_GAP * $this->rate) {
            $place += $steps * $this->step;
        } elseif ($steps < ($this->step === 1 ? -1 : 0)) {
            $this->over = min($samples, -$steps * $this->step);
            if ($this->over === $samples) {
                return null;
            }
        }
        $this->expected = $place + $samples - $this->over;

        return $place;
    }

    /** Halves go up, here as there: what lies between two places is always the later one's. */
    private static function nearest(float $steps): int
    {
        return (int) floor($steps + 0.5);
    }

    public function over(): int
    {
        return $this->over;
    }

    public function end(): int
    {
        return $this->expected ?? 0;
    }

    public function bases(): int
    {
        return 0;
    }
}
