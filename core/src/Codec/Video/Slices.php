<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Media\Codec;

/**
 * The units of a stream of pictures that hold picture content: what must come through a re-wrap whole, however it is cut into pictures.
 * ITU-T H.264, table 7-1; ITU-T H.265, table 7-1; ISO/IEC 13818-2, table 6-1.
 */
final class Slices
{
    private string $held = '';

    private readonly \HashContext $hash;

    private int $count = 0;

    private ?int $beforeKey = null;

    /** Whether a start code was seen. */
    private bool $begun = false;

    /**
     * @param  Codec  $codec  of the pictures, one of those with start codes
     * @param  int  $skip  slices at the start that are not summed
     */
    public function __construct(private readonly Codec $codec, private readonly int $skip = 0)
    {
        $this->hash = hash_init('xxh128');
    }

    /** Bytes of a stream with start codes, in whatever parts. */
    public function stream(string $bytes): void
    {
        $units = explode("\0\0\1", $this->held.$bytes);
        $this->held = (string) array_pop($units);
        // What stands before the first start code belongs to nothing.
        array_map($this->unit(...), $this->begun ? $units : array_slice($units, 1));
        $this->begun = $this->begun || $units !== [];
    }

    /** One picture as a file holds it: with lengths before its units, or with start codes. */
    public function picture(string $bytes, bool $hasLengths): void
    {
        if (! $hasLengths) {
            array_map($this->unit(...), array_slice(explode("\0\0\1", $bytes), 1));

            return;
        }
        for ($at = 0, $end = strlen($bytes); $at + 4 < $end; $at += 4 + $length) {
            /** @var array{1: int} $number */
            $number = unpack('N', $bytes, $at);
            $length = $number[1];
            $this->unit(substr($bytes, $at + 4, $length));
        }
    }

    public function finish(): void
    {
        if ($this->begun) {
            $this->unit($this->held);
        }
        $this->held = '';
    }

    public function count(): int
    {
        return $this->count;
    }

    /** Slices before the first place at which decoding can begin. */
    public function beforeKey(): int
    {
        return $this->beforeKey ?? $this->count;
    }

    /** XXH128 of those that are not skipped. */
    public function sum(): string
    {
        return hash_final(hash_copy($this->hash));
    }

    private function unit(string $unit): void
    {
        $unit = rtrim($unit, "\0");
        if ($unit === '') {
            return;
        }
        if ($this->beforeKey === null && $this->isKey($unit)) {
            $this->beforeKey = $this->count;
        }
        if (! $this->isSlice($unit)) {
            return;
        }
        if ($this->count++ >= $this->skip) {
            hash_update($this->hash, pack('N', strlen($unit)).$unit);
        }
    }

    private function isSlice(string $unit): bool
    {
        $first = ord($unit[0]);

        return match ($this->codec) {
            Codec::H264 => in_array($first & 0x1F, [1, 2, 3, 4, 5], true),
            Codec::H265 => ($first >> 1 & 0x3F) < 32,
            default => $first >= 0x01 && $first <= 0xAF,
        };
    }

    private function isKey(string $unit): bool
    {
        return PictureUnits::of($this->codec)?->isKey("\0\0\1".$unit) ?? ord($unit[0]) === 0xB3;
    }
}
