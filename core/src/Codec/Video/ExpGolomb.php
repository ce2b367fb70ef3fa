<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;

/** Numbers of Exp-Golomb audio: ITU-T H.264, 9.1, and H.265, 9.2. */
final class ExpGolomb
{
    /** @throws BytesMissing */
    public static function number(BitReader $bits): int
    {
        $zeros = 0;
        while ($zeros < 32 && $bits->bits(1) === 0) {
            $zeros++;
        }

        return (1 << $zeros) - 1 + ($zeros === 0 ? 0 : $bits->bits($zeros));
    }
}
