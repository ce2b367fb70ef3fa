<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Amr;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** AMR, narrow and wide: 3GPP TS 26.071 and 26.171. */
final class AmrModule extends CodecModule
{
    public function label(): string
    {
        return $this->codec === Codec::AmrNarrow ? 'AMR-NB' : 'AMR-WB';
    }

    /** It remembers its filters. */
    public function preroll(): int
    {
        return 5;
    }

    public function wholeBits(AudioFormat $audio): int
    {
        return 16;
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new AmrDecoder($audio);
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
