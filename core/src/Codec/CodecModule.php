<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** All that is known of one codec, or of a family that one library works on; a codec that is only named has no module. */
abstract class CodecModule
{
    /** Kbit/s of one and of two channels below which most codecs with loss can be heard by themselves. */
    private const LEAST_KBPS = [64, 128];

    public function __construct(public readonly Codec $codec) {}

    /** As the trade writes it. */
    abstract public function label(): string;

    public function isSound(): bool
    {
        return true;
    }

    public function isLossless(): bool
    {
        return false;
    }

    /** Whether every second takes the same number of bits; null where only the packets tell. */
    public function hasConstantRate(): ?bool
    {
        return null;
    }

    /** Whether the bit rate that is asked for follows the sound, down to next to nothing in silence. */
    public function followsSound(): bool
    {
        return false;
    }

    /** Packets that must be decoded before the wanted one so that its sound is whole. */
    public function preroll(): int
    {
        return 0;
    }

    /** Bits of the whole numbers that it decodes to, which fewer bits would not hold; 0 where it decodes to fractions. */
    public function wholeBits(AudioFormat $audio): int
    {
        return $this->isLossless() ? max(1, $audio->bits()) : 0;
    }

    /** Kbit/s that it needs for the sound that MP3 makes of 100, {@see EnoughRate}. */
    public function need(AudioFormat $audio): int
    {
        return 100;
    }

    /** @return array{int, int} kbit/s of one and of two channels below which it can be heard by itself, whatever it is given */
    public function leastKbps(): array
    {
        return self::LEAST_KBPS;
    }

    /** Kbit/s of one channel below which a source of it is worth a note: it cannot be mended; 0 where nothing is known of it. */
    public function coarseBelow(): int
    {
        return 0;
    }

    /** Whether what sets a decoder up must be there; of others only some variants have a decoder. */
    public const NEEDS_SET_UP = true;

    /** Whether there is a decoder of it at all. */
    public function isDecoded(): bool
    {
        return true;
    }

    /** Whether there is a decoder for this very sound. */
    public function canDecode(AudioFormat $audio): bool
    {
        return $this->isDecoded();
    }

    /**
     * @throws Failure
     */
    public function decoder(AudioFormat $audio): Decoder
    {
        throw CodecNotDecodable::of($audio);
    }

    /**
     * @param  int  $samples  a channel that will come, for codecs that write it first
     * @param  EncoderSettings  $settings  of which each codec takes what it has
     *
     * @throws Failure
     */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        throw EncoderRefused::audio($audio->codec, $audio->rate, $audio->channels());
    }

    /** The set-up bytes that a decoder goes by; two formats with the same ones decode alike. */
    public function setUp(AudioFormat $audio): string
    {
        return $audio->config;
    }

    /** The audio format of packets that bring a set-up of their own, as those of chained recordings do. */
    public function withSetUp(AudioFormat $audio, string $config): AudioFormat
    {
        return $audio->withConfig($config);
    }

    /** What tells its frames apart by themselves, wherever the pieces that hold them end; null where nothing does. */
    public function frames(): ?FrameParser
    {
        return null;
    }

    /** What tells the length of a packet without decoding it. */
    public function length(AudioFormat $audio): PacketLength
    {
        return new SteadyLength($audio);
    }

    /** What cutting packets without decoding them needs; null where packets mean nothing without those before them. */
    public function trimmer(): ?PacketTrimmer
    {
        return null;
    }

    /**
     * What joins streams that two encoders wrote, where an encoder knows nothing of what was before. Others do: MP3 fills the bits that
     * frames before left over, AAC, Opus and Vorbis overlap their windows and remember levels, WavPack and ADPCM go on predicting.
     *
     * @throws Failure
     */
    public function splicer(AudioFormat $audio, EncoderSettings $settings): ?StreamSplicer
    {
        return null;
    }
}
