<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/**
 * Places packets by counting their samples, and follows the container's times only where they say something else:
 * times that are rounded to milliseconds must not make sound jump, gaps must stay open. Times that go back, or jump further
 * than any gap, are those of a new time base: there the count goes on.
 */
final class StreamClock
{
    /** Seconds by which times may be off before they are believed. */
    private const TOLERANCE = 0.02;

    /** Seconds after which a gap is none any more, but damage or another time base. */
    public const LONGEST_GAP = 3600.0;

    /** Seconds that times may go back without being those of another base. */
    private const BACK = 1.0;

    private ?int $expected = null;

    /** Samples between the container's times and the count. */
    private int $offset = 0;

    private int $bases = 0;

    /**
     * @param  float  $samplesPerTick  of the container's times
     * @param  int  $rate  Hz
     * @param  float  $longestGap  seconds; what jumps further has begun anew
     */
    public function __construct(private readonly float $samplesPerTick, private readonly int $rate,
        private readonly float $longestGap = self::LONGEST_GAP) {}

    /**
     * First sample of a packet that the container gives a time.
     *
     * @param  int  $tick  counted from the first packet of the track
     * @param  int  $samples  that the packet decodes to
     * @param  bool  $counted  whether packets were counted from the start; otherwise the first is placed by its time
     */
    public function at(int $tick, int $samples, bool $counted): int
    {
        $stated = (int) round($tick * $this->samplesPerTick) + $this->offset;
        if ($this->expected !== null
            && ($stated < $this->expected - self::BACK * $this->rate || $stated - $this->expected > $this->longestGap * $this->rate)) {
            $this->offset += $this->expected - $stated;
            $stated = $this->expected;
            $this->bases++;
        }
        if ($this->expected === null) {
            $start = $counted && abs($stated) <= self::TOLERANCE * $this->rate ? 0 : $this->snapped($stated, $samples);
        } else {
            $start = $stated - $this->expected > max(intdiv($samples, 2), self::TOLERANCE * $this->rate) ? $stated : $this->expected;
        }
        $this->expected = $start + $samples;

        return $start;
    }

    /** Samples up to the end of what was placed. */
    public function end(): int
    {
        return $this->expected ?? 0;
    }

    /** How often the times began anew. */
    public function bases(): int
    {
        return $this->bases;
    }

    /** First sample of a packet that follows without a time of its own. */
    public function next(int $samples): int
    {
        $start = $this->expected ?? 0;
        $this->expected = $start + $samples;

        return $start;
    }

    /** Packets that are all equally long begin at whole multiples. */
    private function snapped(int $stated, int $samples): int
    {
        if ($samples < 2) {
            return $stated;
        }
        $whole = (int) round($stated / $samples) * $samples;

        return abs($whole - $stated) <= $this->samplesPerTick + 1 ? $whole : $stated;
    }
}
