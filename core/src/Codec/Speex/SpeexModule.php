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
