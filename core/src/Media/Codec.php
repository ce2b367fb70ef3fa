<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Every way of coding that Octavox can name. The value is the word used in programs' output. */
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

    /** Whether it is known to code sound. */
    public function isSound(): bool
    {
        return ! in_array($this, [self::Mpeg1Video, self::Mpeg2Video, self::H264, self::H265, self::Mpeg4Visual, self::MotionJpeg,
            self::Vp8,
            self::Vp9, self::Av1, self::Prores, self::WindowsMediaVideo, self::BitmapCoded, self::Unknown], true);
    }

    /** As the trade writes it. */
    public function label(): string
    {
        return match ($this) {
            self::Pcm => 'PCM',
            self::Aac => 'AAC',
            self::Mp3 => 'MP3',
            self::Mp2 => 'MPEG Layer II',
            self::Mp1 => 'MPEG Layer I',
            self::Alac => 'ALAC',
            self::Flac => 'FLAC',
            self::Opus => 'Opus',
            self::Vorbis => 'Vorbis',
            self::Ac3 => 'AC-3',
            self::Eac3 => 'E-AC-3',
            self::Dts => 'DTS',
            self::AdpcmIma => 'IMA ADPCM',
            self::AdpcmMs => 'Microsoft ADPCM',
            self::Gsm => 'GSM 6.10',
            self::AmrNarrow => 'AMR-NB',
            self::AmrWide => 'AMR-WB',
            self::WavPack => 'WavPack',
            self::Speex => 'Speex',
            self::Dialogic => '4-bit telephone ADPCM',
            self::TrueHd => 'TrueHD',
            self::WindowsMedia => 'Windows Media Audio',
            self::Ape => "Monkey's Audio",
            self::Tta => 'True Audio',
            self::Musepack => 'Musepack',
            self::Dsd => 'DSD',
            self::Mpeg1Video => 'MPEG-1 video',
            self::Mpeg2Video => 'MPEG-2 video',
            self::H264 => 'H.264',
            self::H265 => 'H.265',
            self::Mpeg4Visual => 'MPEG-4 Visual',
            self::MotionJpeg => 'Motion JPEG',
            self::Vp8 => 'VP8',
            self::Vp9 => 'VP9',
            self::Av1 => 'AV1',
            self::Prores => 'ProRes',
            self::WindowsMediaVideo => 'Windows Media Video',
            self::BitmapCoded => 'pictures of AVI',
            self::Unknown => 'unknown',
        };
    }

    public function isLossless(): bool
    {
        return in_array($this, [self::Pcm, self::Alac, self::Flac, self::WavPack, self::TrueHd, self::Ape, self::Tta], true);
    }

    /** Whether every second takes the same number of bits; null where only the packets tell. */
    public function hasConstantRate(): ?bool
    {
        return match ($this) {
            self::Pcm, self::Mp1, self::Mp2, self::Ac3, self::Dts, self::AdpcmIma, self::AdpcmMs, self::Gsm, self::Dialogic,
            self::Dsd => true,
            self::Alac, self::Flac, self::WavPack, self::Opus, self::Vorbis, self::TrueHd, self::Ape, self::Tta, self::Musepack => false,
            default => null,
        };
    }

    /**
     * Packets that must be decoded before the wanted one so that its sound is whole:
     * one for the overlap of AAC (ISO/IEC 14496-3, 4.6.11), Vorbis (Vorbis I, 4.3.8) and AC-3 (ATSC A/52, 7.9.4), ten for the
     * bit reservoir of MP3 (ISO/IEC 11172-3, 2.4.2.7: main_data_begin reaches back 511 bytes), 80 ms for Opus (RFC 7845, 4.6).
     */
    public function preroll(): int
    {
        return match ($this) {
            self::Aac => 2,
            self::Mp3, self::Mp2, self::Mp1 => 10,
            self::Opus => 32,
            self::Vorbis, self::Ac3, self::Dts => 2,
            self::Speex, self::AmrNarrow, self::AmrWide, self::Gsm => 5,
            // Its state goes on from the first sample to the last.
            self::Dialogic => 1 << 40,
            default => 0,
        };
    }
}
