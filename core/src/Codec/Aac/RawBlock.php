<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

/**
 * Puts access units of several encoders together to one: ISO/IEC 14496-3, 4.4.2.1 (raw_data_block). Each begins with its element, a number
 * of three bits and a tag of four; fill elements may follow; it ends with three ones and zeros up to a whole byte.
 */
final class RawBlock
{
    /** Table 4.85: numbers of elements. */
    public const SINGLE = 0;

    public const PAIR = 1;

    public const LOW = 3;

    private const HEAD_BITS = 7;

    private const END_BITS = 3;

    private string $bytes = '';

    /** Bits of the last byte that are in use, 0 where it is full. */
    private int $used = 0;

    /**
     * @param  string  $unit  what an encoder gave for one channel or two
     * @param  int  $element  as what it is to stand
     * @param  int  $tag  its number among those of its kind
     *
     * @throws \UnexpectedValueException where it does not end as an access unit does
     */
    public function add(string $unit, int $element, int $tag): void
    {
        $bits = self::length($unit);
        $this->append(chr(($element << 4 | $tag) << 1 & 0xFF), self::HEAD_BITS);
        $this->append(self::shifted($unit, self::HEAD_BITS), $bits - self::HEAD_BITS);
    }

    public function finish(): string
    {
        $this->append("\xE0", self::END_BITS);

        return $this->bytes;
    }

    /** Bits of a unit before its end. */
    private static function length(string $unit): int
    {
        $last = strlen($unit) - 1;
        $byte = $last < 0 ? 0 : ord($unit[$last]);
        if ($byte === 0) {
            throw new \UnexpectedValueException('An access unit has no end.');
        }
        $zeros = 0;
        while (($byte >> $zeros & 1) === 0) {
            $zeros++;
        }
        $end = ($last < 1 ? 0 : ord($unit[$last - 1]) << 8 | $byte) >> $zeros & 7;
        if ($end !== 7) {
            throw new \UnexpectedValueException('An access unit has no end.');
        }

        return 8 * strlen($unit) - $zeros - self::END_BITS;
    }

    private function append(string $bytes, int $bits): void
    {
        $bytes = substr($bytes, 0, intdiv($bits + 7, 8));
        $rest = $bits & 7;
        if ($rest !== 0) {
            $last = strlen($bytes) - 1;
            $bytes[$last] = chr(ord($bytes[$last]) & (0xFF00 >> $rest));
        }
        if ($this->used === 0) {
            $this->bytes .= $bytes;
        } else {
            $moved = self::shifted("\0".$bytes, 8 - $this->used);
            $end = strlen($this->bytes) - 1;
            $this->bytes[$end] = chr(ord($this->bytes[$end]) | ord($moved[0]));
            $this->bytes .= substr($moved, 1, intdiv($this->used + $bits + 7, 8) - 1);
        }
        $this->used = ($this->used + $bits) & 7;
    }

    /** Everything so many bits further to the left, 0 to 7. */
    private static function shifted(string $bytes, int $left): string
    {
        if ($left === 0) {
            return $bytes;
        }
        $length = strlen($bytes);
        // Seven bytes at a time, with the one that follows them.
        $moved = '';
        $bytes .= str_repeat("\0", 16);
        for ($at = 0; $at < $length; $at += 7) {
            /** @var array{1: int} $word */
            $word = unpack('J', $bytes, $at);
            $moved .= substr(pack('J', $word[1] << $left), 0, 7);
        }

        return substr($moved, 0, $length);
    }
}
