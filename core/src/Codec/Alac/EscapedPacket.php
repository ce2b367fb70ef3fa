<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Sound\Native\FloatBuffer;

/**
 * Packets of 24 bits whose samples stand as they are, because they cannot be compressed, such as full-scale noise (ALAC reference code,
 * "EncodeStereoEscape", "EncodeMonoEscape"). The sample library writes and reads wrong numbers where a pair of channels stands so; such
 * packets are written and read here, all of their elements escaped.
 */
final class EscapedPacket
{
    /** The kinds of elements: one channel, a pair of channels, the end. */
    private const SINGLE = 0;

    private const PAIR = 1;

    private const END = 7;

    private const FRAMES = 4096;

    /** How the channels of a packet are parted into elements (ALAC reference code, sChannelMaps). */
    private const ELEMENTS = [1 => [1], 2 => [2], 3 => [1, 2], 4 => [1, 2, 1], 5 => [1, 2, 2], 6 => [1, 2, 2, 1], 7 => [1, 2, 2, 1, 1],
        8 => [1, 2, 2, 2, 1]];

    private const FULL_SCALE = 8_388_608;

    /**
     * Whether its first element is written so: that of a packet of two channels is all of it.
     *
     * @throws BytesMissing
     */
    public static function is(string $packet): bool
    {
        $bits = new BitReader(substr($packet, 0, 4));
        $bits->bits(3 + 4 + 12 + 1 + 2);

        return $bits->bits(1) === 1;
    }

    /**
     * Puts the samples of such a packet into the room from frame $first on; leaves the room as it is where an element is compressed.
     *
     * @throws BytesMissing
     */
    public static function read(string $packet, int $channels, FloatBuffer $room, int $first): void
    {
        $bits = new BitReader($packet);
        $samples = [];
        $channel = $frames = 0;
        foreach (self::ELEMENTS[$channels] ?? [] as $width) {
            if ($bits->remaining() < 23 || $bits->bits(3) !== ($width === 2 ? self::PAIR : self::SINGLE)) {
                return;
            }
            $bits->bits(4 + 12);
            $isShort = $bits->bits(1) === 1;
            $bits->bits(2);
            if ($bits->bits(1) !== 1) {
                return;
            }
            $frames = min($isShort ? $bits->bits(32) : self::FRAMES, intdiv($bits->remaining(), 24 * $width),
                intdiv($room->capacity, $channels) - $first);
            for ($index = 0; $index < $frames * $width; $index++) {
                $value = $bits->bits(24);
                $samples[intdiv($index, $width) * $channels + $channel + $index % $width]
                    = ($value >= self::FULL_SCALE ? $value - 2 * self::FULL_SCALE : $value) / self::FULL_SCALE;
            }
            $channel += $width;
        }
        if ($frames > 0 && count($samples) === $frames * $channels) {
            ksort($samples);
            $room->put($channels * $first, pack('f*', ...$samples));
        }
    }

    /** @param  int  $first  the first frame in the room */
    public static function write(FloatBuffer $room, int $channels, int $first, int $frames): string
    {
        $bits = new BitWriter;
        $channel = 0;
        $numbers = [1 => 0, 2 => 0];
        foreach (self::ELEMENTS[$channels] ?? [] as $width) {
            $isShort = $frames < self::FRAMES;
            $bits->bits($width === 2 ? self::PAIR : self::SINGLE, 3)->bits($numbers[$width]++, 4)->bits(0, 12)->bits($isShort ? 1 : 0, 1)
                ->bits(0, 2)->bits(1, 1);
            if ($isShort) {
                $bits->bits($frames, 32);
            }
            for ($frame = $first; $frame < $first + $frames; $frame++) {
                for ($within = 0; $within < $width; $within++) {
                    $bits->bits((int) round($room->data[$frame * $channels + $channel + $within] * self::FULL_SCALE), 24);
                }
            }
            $channel += $width;
        }

        return $bits->bits(self::END, 3)->bytes();
    }
}
