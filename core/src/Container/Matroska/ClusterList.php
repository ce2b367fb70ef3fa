<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** Where clusters stand and when they begin, packed so that many take little memory. */
final class ClusterList
{
    private const BYTES = 24;

    private string $packed = '';

    public function add(int $at, int $end, int $time): void
    {
        $this->packed .= pack('P3', $at, $end, $time);
    }

    public function count(): int
    {
        return intdiv(strlen($this->packed), self::BYTES);
    }

    public function at(int $index): int
    {
        return $this->number($index, 0);
    }

    public function end(int $index): int
    {
        return $this->number($index, 8);
    }

    /** In ticks of the segment. */
    public function time(int $index): int
    {
        return $this->number($index, 16);
    }

    /** The last cluster that begins at or before the time, or the first. */
    public function before(int $time): int
    {
        $low = 0;
        $high = $this->count() - 1;
        while ($low < $high) {
            $middle = intdiv($low + $high + 1, 2);
            $this->time($middle) <= $time ? $low = $middle : $high = $middle - 1;
        }

        return max(0, $low);
    }

    private function number(int $index, int $offset): int
    {
        $number = unpack('P', $this->packed, self::BYTES * $index + $offset);

        return is_array($number) && is_int($number[1]) ? $number[1] : 0;
    }
}
