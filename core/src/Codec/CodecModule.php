<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** All that is known of one codec, or of a family that one library works on; a codec that is only named has no module. */
abstract class CodecModule
{
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
