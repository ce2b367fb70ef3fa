<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Container\Aiff\ChannelLayout;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Sound\Layout;

/** Reads the first entry of `stsd`: ISO/IEC 14496-12, 8.5.2; QuickTime File Format Specification, "Sound Sample Descriptions". */
final class SampleEntryReader
{
    public function __construct(private readonly BoxReader $boxes) {}

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(Box $description, TrackKind $kind): ?SampleEntry
    {
        foreach ($this->boxes->children($description, 8) as $entry) {
            return match ($kind) {
                TrackKind::Sound => $this->sound($entry),
                TrackKind::Picture => $this->picture($entry),
                TrackKind::Text, TrackKind::Timecode => SampleEntry::auxiliary($entry),
            };
        }

        return null;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function picture(Box $entry): SampleEntry
    {
        $cursor = $this->boxes->head($entry, 32)->skip(24);
        $codec = match ($entry->type) {
            'avc1', 'avc2', 'avc3', 'avc4' => Codec::H264,
            'hvc1', 'hev1' => Codec::H265,
            'mp4v' => $this->visual($entry),
            'm1v1' => Codec::Mpeg1Video,
            'm2v1', 'mp2v', 'hdv1', 'hdv2', 'hdv3', 'hdv5', 'hdv6', 'hdv7', 'hdv8', 'hdv9', 'xdv1', 'xdv2', 'xdv3', 'xdv6', 'xdv7', 'xdv8',
            'xdva', 'xdvb', 'xdvc', 'xdvd', 'xdve', 'xdvf' => Codec::Mpeg2Video,
            'jpeg', 'mjpa', 'mjpb' => Codec::MotionJpeg,
            'vp08' => Codec::Vp8,
            'vp09' => Codec::Vp9,
            'av01' => Codec::Av1,
            'apch', 'apcn', 'apcs', 'apco', 'ap4h', 'ap4x' => Codec::Prores,
            default => Codec::Unknown,
        };

        return SampleEntry::picture($codec, $codec === Codec::Unknown ? self::printable($entry->type) : CodecModules::of($codec)->label(),
            $cursor->u16be(),
            $cursor->u16be(), $entry);
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function visual(Box $entry): Codec
    {
        foreach ($this->boxes->children($entry, PictureEntry::HEAD) as $child) {
            if ($child->type === 'esds') {
                return PictureEntry::codec($this->boxes->contentBytes($child));
            }
        }

        return Codec::Mpeg4Visual;
    }

    /**
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    private function sound(Box $entry): SampleEntry
    {
        $cursor = $this->boxes->head($entry, 64)->skip(8);
        $version = $cursor->u16be();
        $channels = $cursor->skip(6)->u16be();
        $bits = $cursor->u16be();
        $rate = $cursor->skip(4)->u32be() >> 16;
        $skip = 28;
        $flags = 0;
        if ($version === 1) {
            $skip = 44;
        } elseif ($version === 2) {
            $skip = 64;
            $cursor->skip(4);
            $rate = (int) round(max(0.0, min(1e7, $cursor->f64be())));
            $channels = $cursor->u32be();
            $bits = $cursor->skip(4)->u32be();
            $flags = $cursor->u32be();
        }
        $parts = $this->parts($entry, $skip);
        $audio = $this->audio($entry->type, $channels, $bits, $rate, $flags, $parts);

        return SampleEntry::sound($audio);
    }

    /** @throws BytesMissing */
    private function audio(string $type, int $channels, int $bits, int $rate, int $flags, SoundParts $parts): AudioFormat
    {
        $channels = max(1, min(Layout::MOST_CHANNELS, $channels));
        $layout = Layout::undeclared($channels);
        $pcm = match ($type) {
            'sowt' => SampleFormat::signed(max(8, $bits)),
            'twos' => SampleFormat::signed(max(8, $bits), true),
            'raw ', "\0\0\0\0" => $bits === 16 ? SampleFormat::signed(16, true) : SampleFormat::unsigned8(),
            'in24' => SampleFormat::signed(24, ! $parts->littleEndian),
            'in32' => SampleFormat::signed(32, ! $parts->littleEndian),
            'fl32' => SampleFormat::float(32, ! $parts->littleEndian),
            'fl64' => SampleFormat::float(64, ! $parts->littleEndian),
            'ulaw' => new SampleFormat(SampleKind::MuLaw, 8),
            'alaw' => new SampleFormat(SampleKind::ALaw, 8),
            // QuickTime's CoreAudio flags: 1 float, 2 big-endian, 4 signed
            'lpcm' => ($flags & 1) !== 0 ? SampleFormat::float($bits, ($flags & 2) !== 0)
                : (($flags & 4) === 0 && $bits === 8 ? SampleFormat::unsigned8() : SampleFormat::signed($bits, ($flags & 2) !== 0)),
            // ISO/IEC 23003-5
            'ipcm' => SampleFormat::signed($parts->pcmBits ?: $bits, ! $parts->littleEndian),
            'fpcm' => SampleFormat::float($parts->pcmBits ?: $bits, ! $parts->littleEndian),
            default => null,
        };
        if ($pcm !== null) {
            return AudioFormat::pcm($pcm, max(1, $rate), $parts->layout?->count() === $channels ? $parts->layout : $layout);
        }
        $rate = max(1, $rate);
        if ($type === 'mp4a' && $parts->objectType !== 0) {
            return $this->coded($parts, $rate, $layout);
        }

        return match ($type) {
            '.mp3', "ms\0\x55" => new AudioFormat(Codec::Mp3, $rate, $layout, null, '', $rate >= 32000 ? 1152 : 576),
            '.mp2' => new AudioFormat(Codec::Mp2, $rate, $layout, null, '', 1152),
            'alac' => MagicCookie::parse($parts->config)?->audio() ?? new AudioFormat(Codec::Alac, $rate, $layout),
            'Opus' => OpusHead::parseBox($parts->config)?->audio() ?? new AudioFormat(Codec::Opus, 48000, $layout),
            'fLaC' => StreamInfo::parse($parts->config)?->audio() ?? new AudioFormat(Codec::Flac, $rate, $layout),
            'ac-3', 'AC-3' => new AudioFormat(Codec::Ac3, $rate, $parts->layout ?? $layout, null, '', 1536),
            'ec-3' => new AudioFormat(Codec::Eac3, $rate, $layout),
            'dtsc', 'dtsh', 'dtsl', 'dtse' => new AudioFormat(Codec::Dts, $rate, $layout),
            'enca', 'drms' => new AudioFormat(Codec::Unknown, $rate, $layout, null, '', 0, 'protected sound'),
            'ima4' => new AudioFormat(Codec::AdpcmIma, $rate, $layout),
            'agsm' => new AudioFormat(Codec::Gsm, $rate, $layout),
            'samr' => new AudioFormat(Codec::AmrNarrow, 8000, Layout::mono()),
            'sawb' => new AudioFormat(Codec::AmrWide, 16000, Layout::mono()),
            default => new AudioFormat(Codec::Unknown, $rate, $layout, null, '', 0, '“'.self::printable($type).'”'),
        };
    }

    /**
     * Object types of ISO/IEC 14496-1 and the MP4 registration authority.
     *
     * @throws BytesMissing
     */
    private function coded(SoundParts $parts, int $rate, Layout $layout): AudioFormat
    {
        if ($parts->aacConfig !== '' && in_array($parts->objectType, [0x40, 0x66, 0x67, 0x68], true)) {
            $audio = AudioSpecificConfig::parse($parts->aacConfig)->audio();

            return $audio->rate > 0 ? $audio : new AudioFormat(Codec::Aac, $rate, $layout, null, $parts->aacConfig, 1024);
        }

        return match ($parts->objectType) {
            0x69, 0x6B => new AudioFormat(Codec::Mp3, $rate, $layout, null, '', $rate >= 32000 ? 1152 : 576),
            0xA5 => new AudioFormat(Codec::Ac3, $rate, $layout, null, '', 1536),
            0xA6 => new AudioFormat(Codec::Eac3, $rate, $layout),
            0xA9 => new AudioFormat(Codec::Dts, $rate, $layout),
            0xAD => new AudioFormat(Codec::Opus, 48000, $layout),
            0xDD => new AudioFormat(Codec::Vorbis, $rate, $layout),
            default => new AudioFormat(Codec::Unknown, $rate, $layout, null, '', 0,
                sprintf('MPEG-4 object type 0x%02X', $parts->objectType)),
        };
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function parts(Box $entry, int $skip): SoundParts
    {
        $parts = new SoundParts;
        if ($entry->bodyLength() > $skip) {
            $this->collect($this->boxes->children($entry, $skip), $parts, 0);
        }

        return $parts;
    }

    /**
     * @param  iterable<Box>  $children
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function collect(iterable $children, SoundParts $parts, int $depth): void
    {
        foreach ($children as $child) {
            if ($child->type === 'wave' && $depth === 0) {
                $this->collect($this->boxes->children($child), $parts, 1);
            } elseif ($child->type === 'enda' && $child->bodyLength() >= 2) {
                $parts->littleEndian = $this->boxes->content($child)->u16be() === 1;
            } elseif ($child->type === 'pcmC' && $child->bodyLength() >= 6) {
                $cursor = $this->boxes->content($child)->skip(4);
                $parts->littleEndian = ($cursor->u8() & 1) === 1;
                $parts->pcmBits = $cursor->u8();
            } elseif ($child->type === 'dOps' && $child->bodyLength() < 300) {
                $parts->config = $this->boxes->contentBytes($child);
            } elseif ($child->type === 'dfLa' && $child->bodyLength() >= 42) {
                // Four bytes of version, four of the metadata block's header
                $parts->config = substr($this->boxes->head($child, 42)->rest(), 8);
            } elseif ($child->type === 'alac' && $child->bodyLength() >= 28 && $child->bodyLength() < 1024) {
                $parts->config = substr($this->boxes->contentBytes($child), 4);
            } elseif ($child->type === 'dac3' && $child->bodyLength() >= 3) {
                // ETSI TS 102 366, F.4
                $bits = $this->boxes->head($child, 3)->u24be();
                $parts->layout = Ac3FrameParser::layout($bits >> 11 & 7, ($bits >> 10 & 1) === 1);
            } elseif ($child->type === 'chan' && $child->bodyLength() >= 12) {
                $cursor = $this->boxes->content($child)->skip(4);
                $parts->layout = ChannelLayout::read($cursor->u32be(), $cursor->u32be());
            } elseif ($child->type === 'chnl' && $child->bodyLength() >= 6 && $child->bodyLength() < 256) {
                $parts->layout = SpeakerBox::read($this->boxes->content($child)->skip(4), $child->bodyLength() - 4);
            } elseif ($child->type === 'esds') {
                $descriptor = ElementaryDescriptor::read(substr($this->boxes->contentBytes($child), 4));
                [$parts->objectType, $parts->aacConfig] = [$descriptor->objectType, $descriptor->specific];
            }
        }
    }

    private static function printable(string $type): string
    {
        return (string) preg_replace('/[^\x20-\x7E]/', '?', $type);
    }
}
