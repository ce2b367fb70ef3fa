<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Aac\AacModule;
use Octavox\Core\Codec\Ac3\Ac3Module;
use Octavox\Core\Codec\Ac3\Eac3Module;
use Octavox\Core\Codec\Adpcm\DialogicModule;
use Octavox\Core\Codec\Adpcm\WaveBlockModule;
use Octavox\Core\Codec\Alac\AlacModule;
use Octavox\Core\Codec\Amr\AmrModule;
use Octavox\Core\Codec\Dts\DtsModule;
use Octavox\Core\Codec\Flac\FlacModule;
use Octavox\Core\Codec\Mp3\Mp3Module;
use Octavox\Core\Codec\Opus\OpusModule;
use Octavox\Core\Codec\Pcm\PcmModule;
use Octavox\Core\Codec\Speex\SpeexModule;
use Octavox\Core\Codec\Video\PictureModule;
use Octavox\Core\Codec\Vorbis\VorbisModule;
use Octavox\Core\Codec\WavPack\WavPackModule;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;

/** The registry: which module knows which codec. */
final class CodecModules
{
    /** @var array<string, CodecModule> */
    private static array $made = [];

    public static function of(Codec $codec): CodecModule
    {
        return self::$made[$codec->value] ??= self::module($codec);
    }

    /** A sound format in the trade's words, such as "24-bit PCM" or "HE-AAC". */
    public static function describe(AudioFormat $audio): string
    {
        $label = self::of($audio->codec)->label();

        return match (true) {
            $audio->variant !== '' => $audio->variant,
            $audio->pcm !== null => $audio->pcm->label().' '.$label,
            $audio->bitDepth > 0 => $audio->bitDepth.'-bit '.$label,
            default => $label,
        };
    }

    /** What is in a track, as people call it. */
    public static function describeTrack(Track $track): string
    {
        return match (true) {
            $track->sound !== null => self::describe($track->sound),
            $track->picture !== null => $track->picture->label,
            $track->kind === TrackKind::Timecode => 'time code',
            default => $track->coding === '' ? 'text' : 'subtitles',
        };
    }

    /** {@see CodecModule::preroll()} of the sound in a track; 0 of any other. */
    public static function preroll(Track $track): int
    {
        return $track->sound === null ? 0 : self::of($track->sound->codec)->preroll();
    }

    private static function module(Codec $codec): CodecModule
    {
        return match ($codec) {
            Codec::Pcm => new PcmModule($codec),
            Codec::Aac => new AacModule($codec),
            Codec::Mp3, Codec::Mp2, Codec::Mp1 => new Mp3Module($codec),
            Codec::Alac => new AlacModule($codec),
            Codec::Flac => new FlacModule($codec),
            Codec::Opus => new OpusModule($codec),
            Codec::Vorbis => new VorbisModule($codec),
            Codec::Ac3 => new Ac3Module($codec),
            Codec::Eac3 => new Eac3Module($codec),
            Codec::Dts => new DtsModule($codec),
            Codec::AdpcmIma, Codec::AdpcmMs, Codec::Gsm => new WaveBlockModule($codec),
            Codec::AmrNarrow, Codec::AmrWide => new AmrModule($codec),
            Codec::WavPack => new WavPackModule($codec),
            Codec::Speex => new SpeexModule($codec),
            Codec::Dialogic => new DialogicModule($codec),
            Codec::TrueHd => new NamedModule($codec, 'TrueHD', isLossless: true, isConstant: false, isKept: true),
            Codec::WindowsMedia => new NamedModule($codec, 'Windows Media Audio', need: 80, isKept: true),
            Codec::Ape => new NamedModule($codec, "Monkey's Audio", isLossless: true, isConstant: false),
            Codec::Tta => new NamedModule($codec, 'True Audio', isLossless: true, isConstant: false),
            Codec::Musepack => new NamedModule($codec, 'Musepack', isConstant: false, need: 80),
            Codec::Dsd => new NamedModule($codec, 'DSD', isConstant: true),
            Codec::Mpeg1Video => new PictureModule($codec, 'MPEG-1 video', isStreamed: true),
            Codec::Mpeg2Video => new PictureModule($codec, 'MPEG-2 video', isStreamed: true),
            Codec::H264 => new PictureModule($codec, 'H.264', isStreamed: true),
            Codec::H265 => new PictureModule($codec, 'H.265', isStreamed: true),
            Codec::Mpeg4Visual => new PictureModule($codec, 'MPEG-4 Visual'),
            Codec::MotionJpeg => new PictureModule($codec, 'Motion JPEG'),
            Codec::Vp8 => new PictureModule($codec, 'VP8'),
            Codec::Vp9 => new PictureModule($codec, 'VP9'),
            Codec::Av1 => new PictureModule($codec, 'AV1'),
            Codec::Prores => new PictureModule($codec, 'ProRes'),
            Codec::WindowsMediaVideo => new PictureModule($codec, 'Windows Media Video'),
            Codec::BitmapCoded => new PictureModule($codec, 'pictures of AVI'),
            Codec::Unknown => new NamedModule($codec, 'unknown'),
        };
    }
}
