<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\PacketLength;

/** Length of ALAC packets: as the set-up says, but for short ones, which tell their own. */
final readonly class AlacLength implements PacketLength
{
    public function __construct(private int $usual) {}

    public static function fromCookie(string $config): self
    {
        return new self(MagicCookie::parse($config)->frames ?? 4096);
    }

    /** @throws BytesMissing */
    public function samples(string $packet): int
    {
        if (strlen($packet) < 7) {
            return $this->usual;
        }
        $bits = new BitReader(substr($packet, 0, 7));
        $bits->bits(3 + 4 + 12);
        $short = $bits->bits(1) === 1;
        $bits->bits(2 + 1);

        return $short ? min($this->usual, $bits->bits(32)) : $this->usual;
    }
}
