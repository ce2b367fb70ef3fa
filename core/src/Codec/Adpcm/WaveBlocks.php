<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Adpcm;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** Bytes and samples of one block in WAV, and the `fmt ` chunk that tells them: RFC 2361, A.2, A.13 and A.24. */
final readonly class WaveBlocks
{
    /** The coefficients of Microsoft ADPCM: RFC 2361, A.2. */
    private const COEFFICIENTS = [256, 0, 512, -256, 0, 0, 192, 64, 240, 0, 460, -208, 392, -232];

    private function __construct(public int $bytes, public int $samples) {}

    /** Blocks as long as the sample library makes them, by samples a second over all channels. */
    public static function of(AudioFormat $audio): self
    {
        $channels = $audio->channels();
        $samples = $audio->rate * $channels;
        $bytes = $samples < 12000 ? 256 : ($samples < 23000 ? 512 : ($samples < 44000 ? 1024 : 2048));

        return match ($audio->codec) {
            Codec::Gsm => new self(65, 320),
            Codec::AdpcmMs => new self($bytes, 2 + intdiv(2 * ($bytes - 7 * $channels), $channels)),
            default => new self($bytes, 1 + intdiv(2 * ($bytes - 4 * $channels), $channels)),
        };
    }

    /** The bytes of the `fmt ` chunk. */
    public static function format(AudioFormat $audio): string
    {
        $shape = self::of($audio);
        [$tag, $bits, $extra] = match ($audio->codec) {
            Codec::Gsm => [0x31, 0, pack('v', $shape->samples)],
            Codec::AdpcmMs => [0x02, 4, pack('v2', $shape->samples, 7).implode('',
                array_map(fn (int $number): string => pack('v', $number & 0xFFFF), self::COEFFICIENTS))],
            default => [0x11, 4, pack('v', $shape->samples)],
        };

        return pack('v2V2v3', $tag, $audio->channels(), $audio->rate, intdiv($audio->rate * $shape->bytes, $shape->samples), $shape->bytes,
            $bits, strlen($extra)).$extra;
    }
}
