<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Media\AudioFormat;

/** Predicted sizes of what is compressed without loss, from how far stretches of the sound could be compressed. */
final class SizeForecast
{
    /** Bytes that a file takes beside kept packets, about. */
    public const KEPT_HEAD = 2048;

    /** Bytes that a file takes beside packets of a lossless codec, about. */
    public const LOSSLESS_HEAD = 4096;

    /** Bits of the samples that were tried. */
    public const BITS = 16;

    /** @param  float  $bits  that a sample of {@see self::BITS} bits took; each further bit of a sample holds what cannot be foretold */
    public static function lossless(float $bits, AudioFormat $audio, int $samples): int
    {
        $each = $audio->bits() >= self::BITS ? $bits + $audio->bits() - self::BITS : max(0.5, $bits - self::BITS + $audio->bits());

        return (int) ($samples * $audio->channels() * $each / 8) + 2 * self::LOSSLESS_HEAD;
    }
}
