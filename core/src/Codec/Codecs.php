<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Aac\AacDecoder;
use Octavox\Core\Codec\Aac\AacEncoder;
use Octavox\Core\Codec\Aac\SurroundAacEncoder;
use Octavox\Core\Codec\Ac3\Ac3Decoder;
use Octavox\Core\Codec\Adpcm\DialogicDecoder;
use Octavox\Core\Codec\Adpcm\DialogicEncoder;
use Octavox\Core\Codec\Adpcm\WaveBlockDecoder;
use Octavox\Core\Codec\Adpcm\WaveBlockEncoder;
use Octavox\Core\Codec\Alac\AlacDecoder;
use Octavox\Core\Codec\Alac\AlacEncoder;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Codec\Amr\AmrDecoder;
use Octavox\Core\Codec\Dts\DtsDecoder;
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
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** The registry: which class works on which codec. */
final class Codecs
{
    public static function canDecode(AudioFormat $audio): bool
    {
        return $audio->isOutside || match ($audio->codec) {
            Codec::Pcm => $audio->pcm !== null && $audio->pcm->exists(),
            Codec::Aac => $audio->config !== '',
            Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::AdpcmIma, Codec::Gsm, Codec::Dialogic, Codec::Ac3, Codec::AmrNarrow,
            Codec::AmrWide => true,
            Codec::Dts => DtsDecoder::knows($audio),
            Codec::Alac => MagicCookie::parse($audio->config) !== null,
            Codec::Speex => SpeexHeader::parse($audio->config) !== null,
            Codec::AdpcmMs => $audio->config !== '',
            Codec::Opus => OpusHead::parse($audio->config) !== null,
            Codec::Vorbis => VorbisHeaders::parse($audio->config) !== null,
            Codec::WavPack => ! str_contains($audio->variant, 'one-bit'),
            Codec::Flac => StreamInfo::parse($audio->config) !== null,
            default => false,
        };
    }

    /** Whether there is a decoder, but not what sets it up. */
    public static function lacksSetUp(AudioFormat $audio): bool
    {
        // Of these only some variants have a decoder.
        return ! in_array($audio->codec, [Codec::WavPack, Codec::Pcm, Codec::Dts], true) && self::decodable($audio->codec)
            && ! self::canDecode($audio);
    }

    /** Whether there is a decoder of it at all. */
    public static function decodable(Codec $codec): bool
    {
        return in_array($codec, [
            Codec::Pcm, Codec::Aac, Codec::Mp3, Codec::Mp2, Codec::Mp1, Codec::Alac, Codec::Flac, Codec::WavPack, Codec::Opus,
            Codec::Vorbis, Codec::Speex,
            Codec::Ac3, Codec::Dts, Codec::AmrNarrow, Codec::AmrWide, Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm, Codec::Dialogic,
        ], true);
    }

    /** The set-up bytes that a decoder goes by; two formats with the same ones decode alike. */
    public static function setUp(AudioFormat $audio): string
    {
        $headers = $audio->codec === Codec::Vorbis ? VorbisHeaders::parse($audio->config) : null;

        return $headers === null ? $audio->config : $headers->identification.$headers->setup;
    }

    /** The audio format of packets that bring a set-up of their own, as those of chained recordings do. */
    public static function withSetUp(AudioFormat $audio, string $config): AudioFormat
    {
        return match ($audio->codec) {
            Codec::Opus => OpusHead::parse($config)?->audio(),
            Codec::Vorbis => VorbisHeaders::parse($config)?->audio(),
            default => null,
        } ?? $audio->withConfig($config);
    }

    /**
     * @throws Failure
     */
    public static function decoder(AudioFormat $audio): Decoder
    {
        if (! self::canDecode($audio)) {
            throw CodecNotDecodable::of($audio);
        }

        return match ($audio->codec) {
            Codec::Pcm => new PcmDecoder($audio),
            Codec::Aac => new AacDecoder($audio),
            Codec::Flac => new FlacDecoder($audio),
            Codec::Dialogic => new DialogicDecoder,
            Codec::WavPack => new WavPackDecoder($audio),
            Codec::Alac => new AlacDecoder($audio),
            Codec::Ac3 => new Ac3Decoder($audio),
            Codec::Dts => new DtsDecoder($audio),
            Codec::AmrNarrow, Codec::AmrWide => new AmrDecoder($audio),
            Codec::Speex => new SpeexDecoder($audio),
            Codec::Opus => new OpusDecoder($audio),
            Codec::Vorbis => new VorbisDecoder($audio),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockDecoder($audio),
            default => new Mp3Decoder($audio),
        };
    }

    /**
     * @param  int  $samples  a channel that will come, for codecs that write it first
     * @param  EncoderSettings  $settings  of which each codec takes what it has
     *
     * @throws Failure
     */
    public static function encoder(AudioFormat $audio, RateControl $rateControl, int $samples = 0,
        EncoderSettings $settings = new EncoderSettings): Encoder
    {
        return match ($audio->codec) {
            Codec::Pcm => new PcmEncoder($audio),
            Codec::Mp3 => new Mp3Encoder($audio, $rateControl, $settings),
            Codec::Aac => $audio->channels() > 2 ? new SurroundAacEncoder($audio, $rateControl) : new AacEncoder($audio, $rateControl),
            Codec::Flac => new FlacEncoder($audio, $settings),
            Codec::Dialogic => new DialogicEncoder($audio),
            Codec::WavPack => new WavPackEncoder($audio, $samples, $settings),
            Codec::Alac => new AlacEncoder($audio),
            Codec::Mp2 => new Mp2Encoder($audio, $rateControl, $settings),
            Codec::Opus => new OpusEncoder($audio, $rateControl),
            Codec::Vorbis => new VorbisEncoder($audio, $rateControl, $settings),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockEncoder($audio),
            default => throw EncoderRefused::audio($audio->codec, $audio->rate, $audio->channels()),
        };
    }
}
