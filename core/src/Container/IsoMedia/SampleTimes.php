<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** When each sample begins and how long it lasts; asked in rising order. */
final class SampleTimes
{
    private int $firstSample = 0;

    private int $firstTick = 0;

    private int $count = 0;

    private int $delta = 0;

    private readonly \Iterator $pairs;

    /** @param  iterable<array{int, int}>  $pairs number of samples, ticks of each */
    public function __construct(iterable $pairs)
    {
        $this->pairs = (static function () use ($pairs): \Generator {
            yield from $pairs;
        })();
    }

    /** @return array{int, int} tick, duration; samples beyond the table last as long as the last one in it */
    public function at(int $sample): array
    {
        while ($sample >= $this->firstSample + $this->count && $this->pairs->valid()) {
            /** @var array{int, int} $pair */
            $pair = $this->pairs->current();
            $this->pairs->next();
            $this->firstSample += $this->count;
            $this->firstTick += $this->count * $this->delta;
            [$this->count, $this->delta] = $pair;
        }

        return [$this->firstTick + ($sample - $this->firstSample) * $this->delta, $this->delta];
    }
}
