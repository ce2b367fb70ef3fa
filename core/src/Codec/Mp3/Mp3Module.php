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
    public function label(): string
    {
        return match ($this->codec) {
            Codec::Mp3 => 'MP3',
            Codec::Mp2 => 'MPEG Layer II',
            default => 'MPEG Layer I',
        };
    }

    public function hasConstantRate(): ?bool
    {
        return $this->codec === Codec::Mp3 ? null : true;
    }

    /** For the bit reservoir of Layer III: main_data_begin reaches back 511 bytes (ISO/IEC 11172-3, 2.4.2.7). */
    public function preroll(): int
    {
        return 10;
    }

    public function need(AudioFormat $audio): int
    {
        return match ($this->codec) {
            Codec::Mp3 => 100,
            Codec::Mp2 => 150,
            default => 200,
        };
    }

    public function leastKbps(): array
    {
        return $this->codec === Codec::Mp2 ? [96, 192] : parent::leastKbps();
    }

    public function coarseBelow(): int
    {
        return match ($this->codec) {
            Codec::Mp3 => 40,
            Codec::Mp2 => 56,
            default => 0,
        };
    }

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
