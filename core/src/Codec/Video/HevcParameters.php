<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;

/** The sequence parameter set of H.265: ITU-T H.265, 7.3.2.2.1. */
final readonly class HevcParameters
{
    /** Bytes of general profile, tier and level: 7.3.3. */
    private const PROFILE_BYTES = 12;

    /** @param  string  $profile  12 bytes of profile, tier and level */
    private function __construct(public string $profile, public int $layers, public bool $nested, public int $chroma, public int $lumaBits,
        public int $chromaBits, private int $width, private int $height) {}

    /** @param  string  $unit  the whole unit, its head of two bytes included */
    public static function parse(string $unit): ?self
    {
        // Bytes that keep start codes from appearing are taken out: 7.4.2.
        $bytes = str_replace("\0\0\3", "\0\0", substr($unit, 2));
        $bits = new BitReader($bytes);
        try {
            $bits->bits(4);
            $layers = $bits->bits(3) + 1;
            $nested = $bits->bits(1) === 1;
            self::skip($bits, 8 * self::PROFILE_BYTES);
            self::skipLayers($bits, $layers - 1);
            ExpGolomb::number($bits);
            $chroma = ExpGolomb::number($bits);
            if ($chroma === 3) {
                $bits->bits(1);
            }
            $width = ExpGolomb::number($bits);
            $height = ExpGolomb::number($bits);
            $crop = $bits->bits(1) === 1
                ? [ExpGolomb::number($bits), ExpGolomb::number($bits), ExpGolomb::number($bits), ExpGolomb::number($bits)] : [0, 0, 0, 0];
            $luma = ExpGolomb::number($bits) + 8;
            $chromaBits = ExpGolomb::number($bits) + 8;
        } catch (BytesMissing) {
            return null;
        }
        // 6.2, table 6-1: how many samples of brightness share one of colour
        $across = $chroma === 1 || $chroma === 2 ? 2 : 1;
        $down = $chroma === 1 ? 2 : 1;

        return $chroma > 3 || $luma > 16 || $chromaBits > 16 ? null : new self(substr($bytes, 1, self::PROFILE_BYTES), $layers, $nested,
            $chroma, $luma, $chromaBits, max(0, $width - $across * ($crop[0] + $crop[1])), max(0, $height - $down * ($crop[2] + $crop[3])));
    }

    /** @return array{int, int} */
    public function size(): array
    {
        return [$this->width, $this->height];
    }

    /**
     * Profiles and levels of single layers: 7.3.3.
     *
     * @throws BytesMissing
     */
    private static function skipLayers(BitReader $bits, int $more): void
    {
        $told = [];
        for ($layer = 0; $layer < $more; $layer++) {
            $told[] = [$bits->bits(1), $bits->bits(1)];
        }
        if ($more > 0) {
            self::skip($bits, 2 * (8 - $more));
        }
        foreach ($told as [$profile, $level]) {
            self::skip($bits, 88 * $profile + 8 * $level);
        }
    }

    /** @throws BytesMissing */
    private static function skip(BitReader $bits, int $count): void
    {
        for (; $count > 0; $count -= 8) {
            $bits->bits(min(8, $count));
        }
    }
}
