<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Reads numbers one after another from a short run of bytes; `be` is most significant byte first, `le` least. */
final class Cursor
{
    private int $position = 0;

    /** @param  int  $origin where the run stands in the file, for error sentences */
    public function __construct(private readonly string $bytes, private readonly string $name = 'memory',
        private readonly int $origin = 0) {}

    public function position(): int
    {
        return $this->position;
    }

    public function remaining(): int
    {
        return strlen($this->bytes) - $this->position;
    }

    /** @throws BytesMissing */
    public function take(int $length): string
    {
        if ($length < 0 || $length > strlen($this->bytes) - $this->position) {
            throw BytesMissing::at($this->name, $this->origin + $this->position, $length, $this->origin + strlen($this->bytes));
        }
        $this->position += $length;

        return substr($this->bytes, $this->position - $length, $length);
    }

    /** Bytes further on, without going there; fewer where there are no more. */
    public function ahead(int $skip, int $length): string
    {
        return (string) substr($this->bytes, $this->position + $skip, $length);
    }

    /** @throws BytesMissing */
    public function rest(): string
    {
        return $this->take($this->remaining());
    }

    /** @throws BytesMissing */
    public function skip(int $length): self
    {
        $this->take($length);

        return $this;
    }

    /** @throws BytesMissing */
    public function u8(): int
    {
        return ord($this->take(1));
    }

    /** @throws BytesMissing */
    public function u16be(): int
    {
        return self::number('n', $this->take(2));
    }

    /** @throws BytesMissing */
    public function u24be(): int
    {
        return self::number('N', "\0".$this->take(3));
    }

    /** @throws BytesMissing */
    public function u32be(): int
    {
        return self::number('N', $this->take(4));
    }

    /** @throws BytesMissing */
    public function u64be(): int
    {
        return $this->unsigned(self::number('J', $this->take(8)));
    }

    /** @throws BytesMissing */
    public function s32be(): int
    {
        return self::signed($this->u32be(), 32);
    }

    /** @throws BytesMissing */
    public function s64be(): int
    {
        return self::number('J', $this->take(8));
    }

    /** @throws BytesMissing */
    public function u16le(): int
    {
        return self::number('v', $this->take(2));
    }

    /** @throws BytesMissing */
    public function u32le(): int
    {
        return self::number('V', $this->take(4));
    }

    /** @throws BytesMissing */
    public function u64le(): int
    {
        return $this->unsigned(self::number('P', $this->take(8)));
    }

    /** @throws BytesMissing */
    public function f64be(): float
    {
        $value = unpack('E', $this->take(8));

        return is_array($value) && is_float($value[1]) ? $value[1] : 0.0;
    }

    private static function signed(int $value, int $bits): int
    {
        return $value >= 1 << ($bits - 1) ? $value - (1 << $bits) : $value;
    }

    /**
     * Numbers beyond 2^63-1 address nothing that can exist.
     *
     * @throws BytesMissing
     */
    private function unsigned(int $value): int
    {
        if ($value < 0) {
            throw BytesMissing::at($this->name, $this->origin + $this->position - 8, PHP_INT_MAX, $this->origin + strlen($this->bytes));
        }

        return $value;
    }

    private static function number(string $format, string $bytes): int
    {
        $value = unpack($format, $bytes);

        return is_array($value) && is_int($value[1]) ? $value[1] : 0;
    }
}
