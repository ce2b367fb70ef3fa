<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Container\Aiff\ChannelLayout;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleKind;

/** Builds the sample entry of a sound track: ISO/IEC 14496-12, 12.2.3; QuickTime File Format Specification, "Sound Sample Descriptions". */
final class SoundEntry
{
    /** Whether such sound has a place in MP4, or in a QuickTime movie. */
    public static function carries(AudioFormat $audio, bool $quickTime): bool
    {
        return match ($audio->codec) {
            Codec::Pcm => $audio->pcm !== null && $audio->pcm->exists() && ($quickTime || $audio->rate <= 65535)
                && ($quickTime || in_array($audio->pcm->kind, [SampleKind::Signed, SampleKind::Float], true) && $audio->pcm->bits >= 16),
            Codec::Aac, Codec::Alac => $audio->config !== '',
            Codec::Mp3, Codec::Mp2, Codec::Ac3 => $audio->rate <= 65535,
            Codec::Opus, Codec::Flac => ! $quickTime && $audio->config !== '',
            default => false,
        };
    }

    /**
     * @param  string  $first  the first packet, where the entry repeats facts of it
     * @param  int  $bitsASecond  of all packets on average; 0 where that is not known yet. It does not change the length of the box.
     */
    public static function box(AudioFormat $audio, bool $quickTime, string $first = '', int $bitsASecond = 0): string
    {
        $common = str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 8).pack('n2', $audio->channels(),
            min(16, $audio->bits() ?: 16)).pack('nnN', 0, 0, min(65535, $audio->rate) << 16);

        return match ($audio->codec) {
            Codec::Pcm => $quickTime ? self::quickTimePcm($audio) : Boxes::box($audio->pcm?->kind === SampleKind::Float ? 'fpcm' : 'ipcm',
                $common.Boxes::full('pcmC', 0, 0, pack('CC', $audio->pcm?->bigEndian === true ? 0 : 1, $audio->bits()))
                .SpeakerBox::write($audio->layout)),
            Codec::Alac => Boxes::box('alac', $common.Boxes::full('alac', 0, 0, $audio->config)),
            Codec::Opus => Boxes::box('Opus', $common.Boxes::box('dOps', OpusHead::parse($audio->config)?->boxBytes() ?? '')),
            Codec::Flac => Boxes::box('fLaC', $common.Boxes::full('dfLa', 0, 0, "\x80\0\0\x22".$audio->config)),
            Codec::Ac3 => Boxes::box('ac-3', $common.Boxes::box('dac3', self::ac3($first))),
            // Object types of the MP4 registration authority: AAC, layer II and III of MPEG-1 and of MPEG-2
            Codec::Aac => self::coded($audio, $common, 0x40, $quickTime, $bitsASecond),
            default => self::coded($audio, $common, $audio->rate >= 32000 ? 0x6B : 0x69, $quickTime, $bitsASecond),
        };
    }

    /** The descriptor of ISO/IEC 14496-1, 7.2.6.6, with the greatest and the average bit rate. */
    private static function coded(AudioFormat $audio, string $common, int $objectType, bool $quickTime, int $bitsASecond): string
    {
        $config = $audio->config === '' ? '' : Boxes::descriptor(5, $audio->config);
        $esds = Boxes::full('esds', 0, 0,
            Boxes::descriptor(3,
                "\0\1\0".Boxes::descriptor(4, chr($objectType).chr(0x15)."\0\0\0"
                    .pack('N2', $bitsASecond, $bitsASecond).$config).Boxes::descriptor(6, "\2")));
        if (! $quickTime) {
            return Boxes::box('mp4a', $common.$esds);
        }
        if ($audio->codec !== Codec::Aac) {
            return Boxes::box('.mp3', $common);
        }
        // Version 1 with compression −2, packets of varying size, and the descriptor within `wave`
        $entry = str_repeat("\0", 6).pack('n', 1).pack('nnN', 1, 0, 0).pack('n2', $audio->channels(), 16).pack('nnN', 0xFFFE, 0,
            min(65535, $audio->rate) << 16).pack('N4', $audio->frameLength, 0, 0, 2);

        return Boxes::box('mp4a',
            $entry.Boxes::box('wave', Boxes::box('frma', 'mp4a').Boxes::box('mp4a', "\0\0\0\0").$esds."\0\0\0\x08\0\0\0\0"));
    }

    private static function quickTimePcm(AudioFormat $audio): string
    {
        $pcm = $audio->pcm;
        $layout = $audio->channels() > 2 && $audio->layout->mask() !== 0
            ? Boxes::full('chan', 0, 0, pack('N3', ChannelLayout::BY_BITMAP, $audio->layout->mask(), 0)) : '';
        $type = match (true) {
            $pcm?->kind === SampleKind::ALaw => 'alaw',
            $pcm?->kind === SampleKind::MuLaw => 'ulaw',
            $pcm?->kind === SampleKind::Unsigned => 'raw ',
            $pcm?->kind === SampleKind::Signed && $pcm->bits === 8 => 'twos',
            $pcm?->kind === SampleKind::Signed && $pcm->bits === 16 => $pcm->bigEndian ? 'twos' : 'sowt',
            default => 'lpcm',
        };
        if ($type !== 'lpcm' && $audio->rate <= 65535) {
            return Boxes::box($type, str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 8).pack('n2', $audio->channels(),
                $audio->bits() === 8 && $type !== 'alaw' && $type !== 'ulaw' ? 8 : 16).pack('nnN', 0, 0, $audio->rate << 16).$layout);
        }
        // Version 2: flags 1 float, 2 most significant byte first, 4 signed, 8 packed
        $flags = ($pcm?->kind === SampleKind::Float ? 1 : 4) | ($pcm?->bigEndian === true ? 2 : 0) | 8;
        $entry = str_repeat("\0", 6).pack('n', 1).pack('nnN', 2, 0, 0).pack('n4N', 3, 16, 0xFFFE, 0, 0x10000)
            .pack('N', 72).pack('E', $audio->rate).pack('N6', $audio->channels(), 0x7F000000, $audio->bits(), $flags,
                $audio->frameBytes(), 1);

        return Boxes::box('lpcm', $entry.$layout);
    }

    /** ETSI TS 102 366, F.4: rate code, identification, mode, channels, low frequencies, bit rate code. */
    private static function ac3(string $frame): string
    {
        if ((new Ac3FrameParser)->at(substr($frame, 0, 7)) === null) {
            return "\0\0\0";
        }
        $mode = ord($frame[6]) >> 5;
        $skip = 3 + (($mode & 1) !== 0 && $mode !== 1 ? 2 : 0) + (($mode & 4) !== 0 ? 2 : 0) + ($mode === 2 ? 2 : 0);
        $low = (ord($frame[6]) << 8 | ord($frame[7])) >> 15 - $skip & 1;
        $packed = (ord($frame[4]) >> 6) << 22 | (ord($frame[5]) >> 3) << 17 | (ord($frame[5]) & 7) << 14 | $mode << 11 | $low << 10
            | (ord($frame[4]) & 0x3F) >> 1 << 5;

        return substr(pack('N', $packed), 1);
    }
}
