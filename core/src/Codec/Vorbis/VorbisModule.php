<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PacketLength;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** Vorbis I; what sets a decoder up are two of its three headers. */
final class VorbisModule extends CodecModule
{
    public function label(): string
    {
        return 'Vorbis';
    }

    public function hasConstantRate(): bool
    {
        return false;
    }

    public function followsSound(): bool
    {
        return true;
    }

    /** For the overlap of its windows: Vorbis I, 4.3.8. */
    public function preroll(): int
    {
        return 2;
    }

    public function need(AudioFormat $audio): int
    {
        return 75;
    }

    public function leastKbps(): array
    {
        return [48, 80];
    }

    public function coarseBelow(): int
    {
        return 28;
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return VorbisHeaders::parse($audio->config) !== null;
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new VorbisDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return new VorbisEncoder($audio, $rateControl, $settings);
    }

    public function setUp(AudioFormat $audio): string
    {
        $headers = VorbisHeaders::parse($audio->config);

        return $headers === null ? $audio->config : $headers->identification.$headers->setup;
    }

    public function withSetUp(AudioFormat $audio, string $config): AudioFormat
    {
        return VorbisHeaders::parse($config)?->audio() ?? parent::withSetUp($audio, $config);
    }

    public function length(AudioFormat $audio): PacketLength
    {
        return VorbisLength::fromHeaders($audio->config);
    }

    public function trimmer(): PacketTrimmer
    {
        return new VorbisTrimmer;
    }
}
