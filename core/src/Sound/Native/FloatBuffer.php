<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

use Octavox\Core\Sound\BlockTooLarge;

/** Room for float32 samples in native memory; owned by this object and freed with it. */
final class FloatBuffer
{
    public const BYTES_PER_SAMPLE = 4;

    /** Samples; 64 MiB. */
    private const MOST = 1 << 24;

    /** C array of $capacity floats. */
    public readonly \FFI\CData $data;

    /** @throws BlockTooLarge */
    public function __construct(public readonly int $capacity)
    {
        if ($capacity > self::MOST) {
            throw BlockTooLarge::of($capacity);
        }
        $this->data = \FFI::new('float['.max(1, $capacity).']');
    }

    /**
     * @param  string  $bytes float32 samples in the byte order of this machine
     *
     * @throws BlockTooLarge
     */
    public static function fromBytes(string $bytes): self
    {
        $buffer = new self(intdiv(strlen($bytes), self::BYTES_PER_SAMPLE));
        if ($buffer->capacity > 0) {
            \FFI::memcpy($buffer->data, $bytes, $buffer->capacity * self::BYTES_PER_SAMPLE);
        }

        return $buffer;
    }

    /** Pointer to the sample at $offset, counted in samples; valid as long as this object. */
    public function at(int $offset): \FFI\CData
    {
        return \FFI::addr($this->data[$offset]);
    }

    /** @param  int  $offset in samples; @param  int  $count in samples */
    public function bytes(int $offset, int $count): string
    {
        return $count === 0 ? '' : \FFI::string(\FFI::cast('char*', $this->at($offset)), $count * self::BYTES_PER_SAMPLE);
    }

    /** Copies $count samples from another buffer (or this one, where the stretches do not overlap). */
    public function copy(int $to, self $source, int $from, int $count): void
    {
        if ($count > 0) {
            \FFI::memcpy($this->at($to), $source->at($from), $count * self::BYTES_PER_SAMPLE);
        }
    }

    /** Writes float32 samples in the byte order of this machine. */
    public function put(int $to, string $bytes): void
    {
        if ($bytes !== '') {
            \FFI::memcpy($this->at($to), $bytes, strlen($bytes));
        }
    }

    public function silence(int $from, int $count): void
    {
        if ($count > 0) {
            \FFI::memset($this->at($from), 0, $count * self::BYTES_PER_SAMPLE);
        }
    }
}
