<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\WavPack;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PacketLength;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** WavPack; what has one bit a sample is not decoded. */
final class WavPackModule extends CodecModule
{
    public const NEEDS_SET_UP = false;

    public function label(): string
    {
        return 'WavPack';
    }

    public function isLossless(): bool
    {
        return true;
    }

    public function hasConstantRate(): bool
    {
        return false;
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return ! str_contains($audio->variant, 'one-bit');
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new WavPackDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new WavPackEncoder($audio, $samples, $settings);
    }

    public function length(AudioFormat $audio): PacketLength
    {
        return new WavPackLength;
    }
}
