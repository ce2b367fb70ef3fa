<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Speex;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** Speex. */
final class SpeexModule extends CodecModule
{
    public function label(): string
    {
        return 'Speex';
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

    public function canDecode(AudioFormat $audio): bool
    {
        return SpeexHeader::parse($audio->config) !== null;
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new SpeexDecoder($audio);
    }
}
