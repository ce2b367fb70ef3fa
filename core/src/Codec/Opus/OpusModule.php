<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Opus;

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

/** Opus: RFC 6716. */
final class OpusModule extends CodecModule
{
    public function label(): string
    {
        return 'Opus';
    }

    public function hasConstantRate(): bool
    {
        return false;
    }

    public function followsSound(): bool
    {
        return true;
    }

    /** 80 ms, in packets of 2.5 ms: RFC 7845, 4.6. */
    public function preroll(): int
    {
        return 32;
    }

    public function need(AudioFormat $audio): int
    {
        return 60;
    }

    public function leastKbps(): array
    {
        return [32, 64];
    }

    public function coarseBelow(): int
    {
        return 16;
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return OpusHead::parse($audio->config) !== null;
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new OpusDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new OpusEncoder($audio, $rateControl);
    }

    public function withSetUp(AudioFormat $audio, string $config): AudioFormat
    {
        return OpusHead::parse($config)?->audio() ?? parent::withSetUp($audio, $config);
    }

    public function length(AudioFormat $audio): PacketLength
    {
        return new OpusLength;
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
