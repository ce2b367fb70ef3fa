<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Sound\Native\FloatBuffer;

/**
 * Two channels of 24 bits that cannot be compressed, such as full-scale noise, stand as they are (ALAC reference code, "EncodeStereoEscape").
 * The sample library writes wrong numbers there, so these packets are written here.
 */
final class EscapedPair
{
    /** The kinds of elements: a pair of channels, the end. */
    private const PAIR = 1;

    private const END = 7;

    public static function is(string $packet): bool
    {
        $bits = new BitReader(substr($packet, 0, 4));
        $pair = $bits->bits(3) === self::PAIR;
        $bits->bits(4 + 12 + 1 + 2);

        return $pair && $bits->bits(1) === 1;
    }

    /** @param  int  $first  the first frame in the room */
    public static function write(FloatBuffer $room, int $first, int $frames, bool $short): string
    {
        $bits = (new BitWriter)->bits(self::PAIR, 3)->bits(0, 4 + 12)->bits($short ? 1 : 0, 1)->bits(0, 2)->bits(1, 1);
        if ($short) {
            $bits->bits($frames, 32);
        }
        for ($index = 2 * $first, $end = 2 * ($first + $frames); $index < $end; $index++) {
            $bits->bits((int) round($room->data[$index] * 8_388_608), 24);
        }

        return $bits->bits(self::END, 3)->bytes();
    }
}
