<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Every way of coding that has a name here. The value is the word used in programs' output; what is known of it stands in its module. */
enum Codec: string
{
    case Pcm = 'pcm';
    case Aac = 'aac';
    case Mp3 = 'mp3';
    case Mp2 = 'mp2';
    case Mp1 = 'mp1';
    case Alac = 'alac';
    case Flac = 'flac';
    case Opus = 'opus';
    case Vorbis = 'vorbis';
    case Ac3 = 'ac3';
    case Eac3 = 'eac3';
    case Dts = 'dts';
    case AdpcmIma = 'ima-adpcm';
    case AdpcmMs = 'ms-adpcm';
    case Gsm = 'gsm';
    case AmrNarrow = 'amr-nb';
    case AmrWide = 'amr-wb';
    case WavPack = 'wavpack';
    case Speex = 'speex';
    case Dialogic = 'telephone-adpcm';
    case TrueHd = 'truehd';
    case WindowsMedia = 'windows-media';
    case Ape = 'ape';
    case Tta = 'tta';
    case Musepack = 'musepack';
    case Dsd = 'dsd';
    case Mpeg1Video = 'mpeg1-video';
    case Mpeg2Video = 'mpeg2-video';
    case H264 = 'h264';
    case H265 = 'h265';
    case Mpeg4Visual = 'mpeg4-visual';
    case MotionJpeg = 'motion-jpeg';
    case Vp8 = 'vp8';
    case Vp9 = 'vp9';
    case Av1 = 'av1';
    case Prores = 'prores';
    case WindowsMediaVideo = 'windows-media-video';
    case BitmapCoded = 'bitmap-coded';
    case Unknown = 'unknown';
}
