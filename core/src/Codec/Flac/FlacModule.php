<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PacketLength;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** FLAC: RFC 9639. */
final class FlacModule extends CodecModule
{
    public function label(): string
    {
        return 'FLAC';
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
        return StreamInfo::parse($audio->config) !== null;
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new FlacDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new FlacEncoder($audio, $settings);
    }

    public function length(AudioFormat $audio): PacketLength
    {
        return new FlacLength;
    }

    public function trimmer(): PacketTrimmer
    {
        return new FlacTrimmer;
    }

    /** @throws Failure */
    public function splicer(AudioFormat $audio, EncoderSettings $settings): StreamSplicer
    {
        return new FlacSplicer($audio, $settings);
    }
}
