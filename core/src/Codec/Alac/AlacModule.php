<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PacketLength;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** ALAC, set up by its magic cookie. */
final class AlacModule extends CodecModule
{
    public function label(): string
    {
        return 'ALAC';
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
        return MagicCookie::parse($audio->config) !== null;
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new AlacDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new AlacEncoder($audio);
    }

    public function length(AudioFormat $audio): PacketLength
    {
        return AlacLength::fromCookie($audio->config);
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
