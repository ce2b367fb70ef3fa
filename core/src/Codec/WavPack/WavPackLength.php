<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\WavPack;

use Octavox\Core\Codec\PacketLength;

/** Length of WavPack blocks, whole ones and those without headers, which begin with it. */
final class WavPackLength implements PacketLength
{
    private const MOST = 1 << 22;

    public function samples(string $packet): int
    {
        $at = str_starts_with($packet, 'wvpk') ? 20 : 0;
        /** @var array{1: int}|false $samples */
        $samples = strlen($packet) >= $at + 4 ? unpack('V', $packet, $at) : false;

        return $samples === false || $samples[1] > self::MOST ? 0 : $samples[1];
    }
}
