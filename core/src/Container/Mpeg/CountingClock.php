<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Container\StreamClock;

/** Counts the samples of a stream and follows its times only where they say something else. */
final readonly class CountingClock implements PacketClock
{
    private StreamClock $clock;

    /**
     * @param  int  $rate  Hz
     * @param  float  $longestGap  seconds; what jumps further has begun anew
     * @param  bool  $isCounted  whether packets are counted from the start; otherwise the first is placed by its time
     */
    public function __construct(int $rate, float $longestGap, private bool $isCounted = true)
    {
        $this->clock = new StreamClock($rate / ElementaryReader::TICKS, $rate, $longestGap);
    }

    public function place(?int $tick, int $samples): int
    {
        return $tick === null ? $this->clock->next($samples) : $this->clock->at($tick, $samples, $this->isCounted);
    }

    public function over(): int
    {
        return 0;
    }

    public function end(): int
    {
        return $this->clock->end();
    }

    public function bases(): int
    {
        return $this->clock->bases();
    }
}
