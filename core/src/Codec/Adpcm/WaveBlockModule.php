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
use Octavox\Core\Media\Codec;

/** Telephone sound in blocks, as WAV has it: IMA and Microsoft ADPCM, GSM 6.10. */
final class WaveBlockModule extends CodecModule
{
    public function label(): string
    {
        return match ($this->codec) {
            Codec::AdpcmIma => 'IMA ADPCM',
            Codec::AdpcmMs => 'Microsoft ADPCM',
            default => 'GSM 6.10',
        };
    }

    public function hasConstantRate(): bool
    {
        return true;
    }

    /** GSM remembers its filters; blocks of ADPCM begin anew. */
    public function preroll(): int
    {
        return $this->codec === Codec::Gsm ? 5 : 0;
    }

    public function wholeBits(AudioFormat $audio): int
    {
        return 16;
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return $audio->codec !== Codec::AdpcmMs || $audio->config !== '';
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new WaveBlockDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new WaveBlockEncoder($audio);
    }
}
