<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Stretches of other sources one after the other, as if they were one. */
final class JoinedBytes implements ByteSource
{
    /** @var list<int> where each stretch begins in the whole */
    private array $begins = [];

    /** @var list<Stretch> those that hold something */
    private array $stretches = [];

    private int $size = 0;

    /**
     * @param  list<Stretch>  $stretches
     *
     * @throws BytesMissing
     */
    public function __construct(private readonly string $name, array $stretches)
    {
        foreach ($stretches as $given) {
            foreach ($given->source instanceof self ? $given->source->stretches($given->offset, $given->length) : [$given] as $stretch) {
                if ($stretch->length === 0) {
                    continue;
                }
                $this->begins[] = $this->size;
                $this->stretches[] = $stretch;
                $this->size += $stretch->length;
            }
        }
    }

    public function name(): string
    {
        return $this->name;
    }

    public function size(): int
    {
        return $this->size;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(int $offset, int $length): string
    {
        if ($offset < 0 || $length < 0 || $offset > $this->size - $length) {
            throw BytesMissing::at($this->name, $offset, $length, $this->size);
        }
        $bytes = '';
        foreach ($this->stretches($offset, $length) as $stretch) {
            $bytes = $bytes === '' ? $stretch->bytes() : $bytes.$stretch->bytes();
        }

        return $bytes;
    }

    public function bytesRead(): int
    {
        $sources = [];
        foreach ($this->stretches as $stretch) {
            $sources[spl_object_id($stretch->source)] = $stretch->source->bytesRead();
        }

        return array_sum($sources);
    }

    /**
     * Where so many bytes lie, as far as there are any.
     *
     * @return list<Stretch>
     *
     * @throws BytesMissing
     */
    public function stretches(int $offset, int $length): array
    {
        $found = [];
        for ($index = $this->place($offset); $length > 0 && isset($this->stretches[$index]); $index++) {
            $stretch = $this->stretches[$index];
            $within = $offset - $this->begins[$index];
            $count = min($length, $stretch->length - $within);
            $found[] = Stretch::in($stretch->source, $stretch->offset + $within, $count);
            $offset += $count;
            $length -= $count;
        }

        return $found;
    }

    /** The stretch in which a byte lies; that behind the last one where it lies beyond. */
    private function place(int $offset): int
    {
        if ($offset >= $this->size || $offset < 0) {
            return count($this->stretches);
        }
        [$low, $high] = [0, count($this->begins) - 1];
        while ($low < $high) {
            $middle = intdiv($low + $high + 1, 2);
            $this->begins[$middle] <= $offset ? $low = $middle : $high = $middle - 1;
        }

        return $low;
    }
}
