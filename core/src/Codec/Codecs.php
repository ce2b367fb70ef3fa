<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Aac\AacDecoder;
use Octavox\Core\Codec\Aac\AacEncoder;
use Octavox\Core\Codec\Adpcm\WaveBlockDecoder;
use Octavox\Core\Codec\Adpcm\WaveBlockEncoder;
use Octavox\Core\Codec\Flac\FlacDecoder;
use Octavox\Core\Codec\Flac\FlacEncoder;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\Mp3\Mp3Decoder;
use Octavox\Core\Codec\Mp3\Mp3Encoder;
use Octavox\Core\Codec\Pcm\PcmDecoder;
use Octavox\Core\Codec\Pcm\PcmEncoder;

/** The registry: which class works on which codec. */
final class Codecs
{
    public static function canDecode(SoundForm $form): bool
    {
        return match ($form->codec) {
            Codec::Pcm => $form->pcm !== null && $form->pcm->exists(),
            Codec::Aac => $form->config !== '',
            Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::AdpcmIma, Codec::Gsm => true,
            Codec::AdpcmMs => $form->config !== '',
            Codec::Flac => StreamInfo::parse($form->config) !== null,
            default => false,
        };
    }

    /** @throws CodecNotDecodable */
    public static function decoder(SoundForm $form): Decoder
    {
        if (! self::canDecode($form)) {
            throw CodecNotDecodable::named($form->label());
        }

        return match ($form->codec) {
            Codec::Pcm => new PcmDecoder($form),
            Codec::Aac => new AacDecoder($form),
            Codec::Flac => new FlacDecoder($form),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockDecoder($form),
            default => new Mp3Decoder($form),
        };
    }

    /** @throws EncoderRefused */
    public static function encoder(SoundForm $form, EncoderSetting $setting): Encoder
    {
        return match ($form->codec) {
            Codec::Pcm => new PcmEncoder($form),
            Codec::Mp3 => new Mp3Encoder($form, $setting),
            Codec::Aac => new AacEncoder($form, $setting),
            Codec::Flac => new FlacEncoder($form),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockEncoder($form),
            default => throw EncoderRefused::form($form->codec, $form->rate, $form->channels()),
        };
    }
}
