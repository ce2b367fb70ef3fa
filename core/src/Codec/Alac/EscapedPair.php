<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Sound\Native\FloatBuffer;

/**
 * Two channels of 24 bits that cannot be compressed, such as full-scale noise, stand as they are (ALAC reference code,
 * "EncodeStereoEscape").
 * The sample library writes and reads wrong numbers there, so these packets are written and read here.
 */
final class EscapedPair
{
    /** The kinds of elements: a pair of channels, the end. */
    private const PAIR = 1;

    private const END = 7;

    private const FRAMES = 4096;

    public static function is(string $packet): bool
    {
        $bits = new BitReader(substr($packet, 0, 4));
        $pair = $bits->bits(3) === self::PAIR;
        $bits->bits(4 + 12 + 1 + 2);

        return $pair && $bits->bits(1) === 1;
    }

    /** Puts the samples of such a packet into the room from frame $first on; gives how many frames there were. */
    public static function read(string $packet, FloatBuffer $room, int $first): int
    {
        $bits = new BitReader($packet);
        $bits->bits(3 + 4 + 12);
        $short = $bits->bits(1) === 1;
        $bits->bits(2 + 1);
        $frames = min($short ? $bits->bits(32) : self::FRAMES, intdiv($bits->remaining(), 48), intdiv($room->capacity, 2) - $first);
        $samples = [];
        for ($index = 0; $index < 2 * $frames; $index++) {
            $value = $bits->bits(24);
            $samples[] = ($value >= 1 << 23 ? $value - (1 << 24) : $value) / 8_388_608;
        }
        $room->put(2 * $first, pack('f*', ...$samples));

        return $frames;
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
