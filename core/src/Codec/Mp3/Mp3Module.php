<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\Mp2\Mp2Encoder;
use Octavox\Core\Codec\PacketLength;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** MPEG audio of all three layers: ISO/IEC 11172-3. Layer I is only decoded. */
final class Mp3Module extends CodecModule
{
    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new Mp3Decoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return match ($audio->codec) {
            Codec::Mp3 => new Mp3Encoder($audio, $rateControl, $settings),
            Codec::Mp2 => new Mp2Encoder($audio, $rateControl, $settings),
            default => parent::encoder($audio, $rateControl, $samples, $settings),
        };
    }

    public function frames(): FrameParser
    {
        return new MpegFrameParser;
    }

    public function length(AudioFormat $audio): PacketLength
    {
        return new MpegLength;
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
