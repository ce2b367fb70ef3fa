<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Reads bit fields, most significant bit first. */
final class BitReader
{
    private int $position = 0;

    public function __construct(private readonly string $bytes) {}

    public function remaining(): int
    {
        return 8 * strlen($this->bytes) - $this->position;
    }

    /**
     * The next $count bits (0 to 56) as an unsigned number.
     *
     * @throws BytesMissing
     */
    public function bits(int $count): int
    {
        if ($count > $this->remaining()) {
            throw BytesMissing::at('bit field', intdiv($this->position, 8), intdiv($count + 7, 8), strlen($this->bytes));
        }
        $value = 0;
        for ($left = $count; $left > 0; $left -= $taken) {
            $free = 8 - ($this->position & 7);
            $taken = min($free, $left);
            $byte = ord($this->bytes[$this->position >> 3]);
            $value = ($value << $taken) | (($byte >> ($free - $taken)) & ((1 << $taken) - 1));
            $this->position += $taken;
        }

        return $value;
    }
}
