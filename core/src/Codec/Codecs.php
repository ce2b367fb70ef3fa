<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** What decodes, encodes, cuts and joins sound, by its codec. */
final class Codecs
{
    public static function canDecode(AudioFormat $audio): bool
    {
        return $audio->isOutside || CodecModules::of($audio->codec)->canDecode($audio);
    }

    /** Whether there is a decoder, but not what sets it up. */
    public static function lacksSetUp(AudioFormat $audio): bool
    {
        $module = CodecModules::of($audio->codec);

        return $module::NEEDS_SET_UP && $module->isDecoded() && ! self::canDecode($audio);
    }

    /** {@see CodecModule::setUp()} */
    public static function setUp(AudioFormat $audio): string
    {
        return CodecModules::of($audio->codec)->setUp($audio);
    }

    /** {@see CodecModule::withSetUp()} */
    public static function withSetUp(AudioFormat $audio, string $config): AudioFormat
    {
        return CodecModules::of($audio->codec)->withSetUp($audio, $config);
    }

    /** @throws Failure */
    public static function decoder(AudioFormat $audio): Decoder
    {
        return self::canDecode($audio) ? CodecModules::of($audio->codec)->decoder($audio) : throw CodecNotDecodable::of($audio);
    }

    /**
     * {@see CodecModule::encoder()}
     *
     * @throws Failure
     */
    public static function encoder(AudioFormat $audio, RateControl $rateControl, int $samples = 0,
        EncoderSettings $settings = new EncoderSettings): Encoder
    {
        return CodecModules::of($audio->codec)->encoder($audio, $rateControl, $samples, $settings);
    }

    /** {@see CodecModule::trimmer()} */
    public static function trimmer(Codec $codec): ?PacketTrimmer
    {
        return CodecModules::of($codec)->trimmer();
    }

    /**
     * {@see CodecModule::splicer()}
     *
     * @throws Failure
     */
    public static function splicer(AudioFormat $audio, EncoderSettings $settings = new EncoderSettings): ?StreamSplicer
    {
        return CodecModules::of($audio->codec)->splicer($audio, $settings);
    }
}
