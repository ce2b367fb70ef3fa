<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Container\StreamClock;

/** Times of 33 bits on one line: over the end of their bits, and on where they begin anew. */
final class TickClock
{
    /** Ticks that pictures may go back, because they are decoded in another order than shown. */
    private const BACK = ElementaryReader::TICKS;

    /** Ticks of a step that is not known yet: a 25th of a second. */
    private const USUAL = 3600;

    private ?int $raw = null;

    private int $ticks = 0;

    private int $latest = 0;

    private int $step = self::USUAL;

    private int $bases = 0;

    /** @param  float  $longestGap  seconds; what jumps further has begun anew */
    public function __construct(private readonly float $longestGap = StreamClock::LONGEST_GAP) {}

    /** Ticks from the first time that was asked for. */
    public function ticks(int $time): int
    {
        if ($this->raw === null) {
            $this->raw = $time;

            return 0;
        }
        $step = ElementaryReader::between($this->raw, $time);
        if ($this->ticks + $step < $this->latest - self::BACK || $step > $this->longestGap * ElementaryReader::TICKS) {
            $step = $this->latest + $this->step - $this->ticks;
            $this->bases++;
        }
        $this->ticks += $step;
        if ($this->ticks > $this->latest) {
            $this->step = min($this->ticks - $this->latest, self::BACK);
            $this->latest = $this->ticks;
        }
        $this->raw = $time;

        return $this->ticks;
    }

    /** How often the times began anew. */
    public function bases(): int
    {
        return $this->bases;
    }

    /** Ticks up to the end of the last one. */
    public function end(): int
    {
        return $this->latest + $this->step;
    }
}
