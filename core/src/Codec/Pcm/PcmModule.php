<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleKind;

/** Uncompressed sound; it has no packets of its own. */
final class PcmModule extends CodecModule
{
    public const NEEDS_SET_UP = false;

    public function label(): string
    {
        return 'PCM';
    }

    public function isLossless(): bool
    {
        return true;
    }

    public function hasConstantRate(): bool
    {
        return true;
    }

    public function wholeBits(AudioFormat $audio): int
    {
        return match ($audio->pcm?->kind) {
            SampleKind::Float => 0,
            SampleKind::ALaw, SampleKind::MuLaw => 16,
            default => parent::wholeBits($audio),
        };
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return $audio->pcm !== null && $audio->pcm->exists();
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new PcmDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new PcmEncoder($audio);
    }

    /** @throws Failure */
    public function splicer(AudioFormat $audio, EncoderSettings $settings): StreamSplicer
    {
        return new PcmSplicer($audio);
    }
}
