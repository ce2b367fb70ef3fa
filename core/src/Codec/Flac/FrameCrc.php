<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

/** The two cyclic redundancy sums of a frame: RFC 9639, 9.1.8 and 9.3. */
final class FrameCrc
{
    /** x⁸ + x² + x + 1 */
    private const HEADER = 0x07;

    /** x¹⁶ + x¹⁵ + x² + 1 */
    private const FRAME = 0x18005;

    /** @var array<int, int> x to the power of 8 · 2ⁿ, n = 0, 1, 2, … */
    private static array $powers = [];

    /** Of a header: 8 bits. */
    public static function header(string $bytes): int
    {
        $sum = 0;
        for ($at = 0, $end = strlen($bytes); $at < $end; $at++) {
            $sum ^= ord($bytes[$at]);
            for ($bit = 0; $bit < 8; $bit++) {
                $sum = ($sum & 0x80) !== 0 ? ($sum << 1 ^ self::HEADER) & 0xFF : $sum << 1;
            }
        }

        return $sum;
    }

    /** Of a whole frame: 16 bits. */
    public static function frame(string $bytes): int
    {
        $sum = 0;
        for ($at = 0, $end = strlen($bytes); $at < $end; $at++) {
            $sum ^= ord($bytes[$at]) << 8;
            for ($bit = 0; $bit < 8; $bit++) {
                $sum <<= 1;
                $sum = ($sum & 0x10000) !== 0 ? $sum ^ self::FRAME : $sum;
            }
        }

        return $sum;
    }

    /** Whether the last two bytes are the sum of those before. */
    public static function isWhole(string $frame): bool
    {
        return strlen($frame) > 2 && self::frame($frame) === 0;
    }

    /**
     * What the sum of a frame becomes when so many bytes of zero follow; sums being linear, this is how a change early in a frame reaches
     * its end.
     */
    public static function followed(int $sum, int $bytes): int
    {
        for ($power = 0; $bytes > 0; $power++, $bytes >>= 1) {
            self::$powers[$power] ??= $power === 0 ? 0x100 : self::product(self::$powers[$power - 1], self::$powers[$power - 1]);
            if (($bytes & 1) === 1) {
                $sum = self::product($sum, self::$powers[$power]);
            }
        }

        return $sum;
    }

    /** Of two polynomials, modulo that of the frame's sum. */
    private static function product(int $a, int $b): int
    {
        $product = 0;
        for (; $b > 0; $b >>= 1) {
            $product = ($b & 1) === 1 ? $product ^ $a : $product;
            $a <<= 1;
            $a = ($a & 0x10000) !== 0 ? $a ^ self::FRAME : $a;
        }

        return $product;
    }
}
