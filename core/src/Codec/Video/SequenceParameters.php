<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;

/** The sequence parameter set of H.264: ITU-T H.264, 7.3.2.1.1. */
final readonly class SequenceParameters
{
    /** Profiles whose set tells the form of chroma. */
    private const HIGH = [100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135];

    private function __construct(private int $width, private int $height) {}

    /** @param  string  $unit  the whole unit, its head included */
    public static function parse(string $unit): ?self
    {
        // Bytes that keep start codes from appearing are taken out: 7.4.1.
        $bits = new BitReader(str_replace("\0\0\3", "\0\0", substr($unit, 1)));
        try {
            $profile = $bits->bits(8);
            $bits->bits(16);
            ExpGolomb::number($bits);
            $chroma = 1;
            if (in_array($profile, self::HIGH, true)) {
                $chroma = ExpGolomb::number($bits);
                if ($chroma === 3) {
                    $bits->bits(1);
                }
                ExpGolomb::number($bits);
                ExpGolomb::number($bits);
                $bits->bits(1);
                if ($bits->bits(1) === 1) {
                    self::skipScaling($bits, $chroma === 3 ? 12 : 8);
                }
            }
            ExpGolomb::number($bits);
            self::skipOrder($bits);
            ExpGolomb::number($bits);
            $bits->bits(1);
            $columns = ExpGolomb::number($bits) + 1;
            $rows = ExpGolomb::number($bits) + 1;
            $whole = $bits->bits(1);
            $bits->bits($whole === 1 ? 1 : 2);
            $crop = [0, 0, 0, 0];
            if ($bits->bits(1) === 1) {
                $crop = [ExpGolomb::number($bits), ExpGolomb::number($bits), ExpGolomb::number($bits), ExpGolomb::number($bits)];
            }
            // 7.4.2.1.1: units of cropping by the form of chroma and by fields
            $across = $chroma === 1 || $chroma === 2 ? 2 : 1;
            $down = ($chroma === 1 ? 2 : 1) * (2 - $whole);

            return new self(max(0, 16 * $columns - $across * ($crop[0] + $crop[1])),
                max(0, 16 * $rows * (2 - $whole) - $down * ($crop[2] + $crop[3])));
        } catch (BytesMissing) {
            return null;
        }
    }

    /** @return array{int, int} */
    public function size(): array
    {
        return [$this->width, $this->height];
    }

    /** @throws BytesMissing */
    private static function skipOrder(BitReader $bits): void
    {
        $kind = ExpGolomb::number($bits);
        if ($kind === 0) {
            ExpGolomb::number($bits);
        } elseif ($kind === 1) {
            $bits->bits(1);
            ExpGolomb::number($bits);
            ExpGolomb::number($bits);
            for ($count = min(255, ExpGolomb::number($bits)); $count > 0; $count--) {
                ExpGolomb::number($bits);
            }
        }
    }

    /** @throws BytesMissing */
    private static function skipScaling(BitReader $bits, int $lists): void
    {
        for ($list = 0; $list < $lists; $list++) {
            if ($bits->bits(1) === 0) {
                continue;
            }
            $last = 8;
            $next = 8;
            for ($index = 0, $size = $list < 6 ? 16 : 64; $index < $size; $index++) {
                if ($next !== 0) {
                    $code = ExpGolomb::number($bits);
                    $next = ($last + ($code % 2 === 1 ? intdiv($code + 1, 2) : -intdiv($code, 2)) + 256) % 256;
                }
                $last = $next === 0 ? $last : $next;
            }
        }
    }
}
