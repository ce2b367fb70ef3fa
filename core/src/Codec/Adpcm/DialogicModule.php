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
    public function label(): string
    {
        return '4-bit telephone ADPCM';
    }

    public function hasConstantRate(): bool
    {
        return true;
    }

    /** Its state goes on from the first sample to the last. */
    public function preroll(): int
    {
        return 1 << 40;
    }

    public function wholeBits(AudioFormat $audio): int
    {
        return 16;
    }

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
