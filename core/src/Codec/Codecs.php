<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Aac\AacDecoder;
use Octavox\Core\Codec\Aac\AacEncoder;
use Octavox\Core\Codec\Ac3\Ac3Decoder;
use Octavox\Core\Codec\Adpcm\DialogicDecoder;
use Octavox\Core\Codec\Adpcm\DialogicEncoder;
use Octavox\Core\Codec\Adpcm\WaveBlockDecoder;
use Octavox\Core\Codec\Adpcm\WaveBlockEncoder;
use Octavox\Core\Codec\Alac\AlacDecoder;
use Octavox\Core\Codec\Alac\AlacEncoder;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Codec\Amr\AmrDecoder;
use Octavox\Core\Codec\Flac\FlacDecoder;
use Octavox\Core\Codec\Flac\FlacEncoder;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\Mp2\Mp2Encoder;
use Octavox\Core\Codec\Mp3\Mp3Decoder;
use Octavox\Core\Codec\Mp3\Mp3Encoder;
use Octavox\Core\Codec\Opus\OpusDecoder;
use Octavox\Core\Codec\Opus\OpusEncoder;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Codec\Pcm\PcmDecoder;
use Octavox\Core\Codec\Pcm\PcmEncoder;
use Octavox\Core\Codec\Speex\SpeexDecoder;
use Octavox\Core\Codec\Speex\SpeexHeader;
use Octavox\Core\Codec\Vorbis\VorbisDecoder;
use Octavox\Core\Codec\Vorbis\VorbisEncoder;
use Octavox\Core\Codec\Vorbis\VorbisHeaders;
use Octavox\Core\Codec\WavPack\WavPackDecoder;
use Octavox\Core\Codec\WavPack\WavPackEncoder;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** The registry: which class works on which codec. */
final class Codecs
{
    public static function canDecode(AudioFormat $form): bool
    {
        return match ($form->codec) {
            Codec::Pcm => $form->pcm !== null && $form->pcm->exists(),
            Codec::Aac => $form->config !== '',
            Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::AdpcmIma, Codec::Gsm, Codec::Dialogic, Codec::Ac3, Codec::AmrNarrow, Codec::AmrWide => true,
            Codec::Alac => MagicCookie::parse($form->config) !== null,
            Codec::Speex => SpeexHeader::parse($form->config) !== null,
            Codec::AdpcmMs => $form->config !== '',
            Codec::Opus => OpusHead::parse($form->config) !== null,
            Codec::Vorbis => VorbisHeaders::parse($form->config) !== null,
            Codec::WavPack => ! str_contains($form->variant, 'one-bit'),
            Codec::Flac => StreamInfo::parse($form->config) !== null,
            default => false,
        };
    }

    /** Whether there is a decoder, but not what sets it up. */
    public static function lacksSetUp(AudioFormat $form): bool
    {
        // Of these only some variants have a decoder.
        return ! in_array($form->codec, [Codec::WavPack, Codec::Pcm], true) && self::decodable($form->codec) && ! self::canDecode($form);
    }

    /** Whether there is a decoder of it at all. */
    public static function decodable(Codec $codec): bool
    {
        return in_array($codec, [
            Codec::Pcm, Codec::Aac, Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::Alac, Codec::Flac, Codec::WavPack, Codec::Opus, Codec::Vorbis, Codec::Speex,
            Codec::Ac3, Codec::AmrNarrow, Codec::AmrWide, Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm, Codec::Dialogic,
        ], true);
    }

    /** The set-up bytes that a decoder goes by; two forms with the same ones decode alike. */
    public static function setUp(AudioFormat $form): string
    {
        $headers = $form->codec === Codec::Vorbis ? VorbisHeaders::parse($form->config) : null;

        return $headers === null ? $form->config : $headers->identification.$headers->setup;
    }

    /** The form of packets that bring a set-up of their own, as those of chained recordings do. */
    public static function withSetUp(AudioFormat $form, string $config): AudioFormat
    {
        return match ($form->codec) {
            Codec::Opus => OpusHead::parse($config)?->form(),
            Codec::Vorbis => VorbisHeaders::parse($config)?->form(),
            default => null,
        } ?? $form->withConfig($config);
    }

    /** @throws CodecNotDecodable */
    public static function decoder(AudioFormat $form): Decoder
    {
        if (! self::canDecode($form)) {
            throw CodecNotDecodable::of($form);
        }

        return match ($form->codec) {
            Codec::Pcm => new PcmDecoder($form),
            Codec::Aac => new AacDecoder($form),
            Codec::Flac => new FlacDecoder($form),
            Codec::Dialogic => new DialogicDecoder,
            Codec::WavPack => new WavPackDecoder($form),
            Codec::Alac => new AlacDecoder($form),
            Codec::Ac3 => new Ac3Decoder($form),
            Codec::AmrNarrow, Codec::AmrWide => new AmrDecoder($form),
            Codec::Speex => new SpeexDecoder($form),
            Codec::Opus => new OpusDecoder($form),
            Codec::Vorbis => new VorbisDecoder($form),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockDecoder($form),
            default => new Mp3Decoder($form),
        };
    }

    /**
     * @param  int  $samples  a channel that will come, for codecs that write it first
     *
     * @throws EncoderRefused
     */
    public static function encoder(AudioFormat $form, RateControl $setting, int $samples = 0): Encoder
    {
        return match ($form->codec) {
            Codec::Pcm => new PcmEncoder($form),
            Codec::Mp3 => new Mp3Encoder($form, $setting),
            Codec::Aac => new AacEncoder($form, $setting),
            Codec::Flac => new FlacEncoder($form),
            Codec::Dialogic => new DialogicEncoder($form),
            Codec::WavPack => new WavPackEncoder($form, $samples),
            Codec::Alac => new AlacEncoder($form),
            Codec::Mp2 => new Mp2Encoder($form, $setting),
            Codec::Opus => new OpusEncoder($form, $setting),
            Codec::Vorbis => new VorbisEncoder($form, $setting),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockEncoder($form),
            default => throw EncoderRefused::form($form->codec, $form->rate, $form->channels()),
        };
    }
}
