<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Adpcm;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** Telephone sound of four bits a sample. */
final class DialogicModule extends CodecModule
{
    public function decoder(AudioFormat $audio): Decoder
    {
        return new DialogicDecoder;
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new DialogicEncoder($audio);
    }
}
