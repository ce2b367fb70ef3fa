<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Media\Codec;

/** Reads what a picture's sample entry tells, and builds one for pictures that come from elsewhere. */
final class PictureEntry
{
    /** Bytes of a visual sample entry before its boxes: ISO/IEC 14496-12, 12.1.3. */
    public const HEAD = 78;

    private const MOST_BYTES = 1 << 20;

    /** Object types: ISO/IEC 14496-1, table 5. */
    private const VISUAL = 0x20;

    private const MPEG_1 = 0x6A;

    /** Of MPEG-2 by the number of the profile: high, spatial, SNR, main, simple. */
    private const MPEG_2 = [1 => 0x64, 0x63, 0x62, 0x61, 0x60];

    private const MPEG_2_422 = 0x65;

    /**
     * @param  PictureStream  $track  what the track's headers tell; its spacing counts where the entry tells none
     * @return ?PictureStream null where the entry is too short or too long for one
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function read(BoxReader $boxes, Box $entry, PictureStream $track): ?PictureStream
    {
        if ($entry->end - $entry->at > self::MOST_BYTES || $entry->bodyLength() < self::HEAD) {
            return null;
        }
        $configuration = '';
        $spacing = null;
        $colour = null;
        foreach ($boxes->children($entry, self::HEAD) as $child) {
            if (in_array($child->type, ['avcC', 'hvcC', 'av1C'], true)) {
                $configuration = $boxes->contentBytes($child);
            } elseif ($child->type === 'esds') {
                $configuration = ElementaryDescriptor::read(substr($boxes->contentBytes($child), 4))->specific;
            } elseif ($child->type === 'pasp' && $child->bodyLength() >= 8) {
                $cursor = $boxes->content($child);
                $spacing = [$cursor->u32be(), $cursor->u32be()];
            } elseif ($child->type === 'colr' && $child->bodyLength() >= 10) {
                $cursor = $boxes->content($child);
                $kind = $cursor->take(4);
                if ($kind === 'nclx' || $kind === 'nclc') {
                    $colour = [$cursor->u16be(), $cursor->u16be(), $cursor->u16be(),
                        $kind === 'nclx' && $cursor->remaining() > 0 && ($cursor->u8() & 0x80) !== 0];
                }
            }
        }

        return $track->described($configuration, $boxes->bytes->read($entry->at, $entry->end - $entry->at), $spacing ?? $track->spacing,
            $colour);
    }

    /** The sample entry: the very one it came with, or one built from what is known. */
    public static function box(PictureStream $stream, bool $quickTime): string
    {
        // MP4 knows MPEG-1 and MPEG-2 by one name only, QuickTime by many.
        $foreign = ! $quickTime && in_array($stream->codec, [Codec::Mpeg1Video, Codec::Mpeg2Video], true)
            && substr($stream->entry, 4, 4) !== 'mp4v';
        if ($stream->entry !== '' && ! $foreign) {
            return $stream->entry;
        }
        $head = str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 16).pack('n2N2Nn', $stream->width, $stream->height, 0x480000, 0x480000, 0,
            1).str_repeat("\0", 32).pack('n2', 24, 0xFFFF);
        $more = ($stream->spacing === null ? '' : Boxes::box('pasp', pack('N2', ...$stream->spacing)))
            .($stream->colour === null ? ''
                : Boxes::box('colr', ($quickTime ? 'nclc' : 'nclx').pack('n3', $stream->colour[0], $stream->colour[1],
                    $stream->colour[2]).($quickTime ? '' : ($stream->colour[3] ? "\x80" : "\0"))));

        return match ($stream->codec) {
            Codec::H264 => Boxes::box('avc1', $head.Boxes::box('avcC', $stream->configuration).$more),
            Codec::H265 => Boxes::box('hvc1', $head.Boxes::box('hvcC', $stream->configuration).$more),
            Codec::Av1 => Boxes::box('av01', $head.Boxes::box('av1C', $stream->configuration).$more),
            Codec::Vp9 => Boxes::box('vp09', $head.Boxes::full('vpcC', 1, 0, self::vp9($stream)).$more),
            Codec::MotionJpeg => Boxes::box('jpeg', $head.$more),
            Codec::Prores => Boxes::box($stream->configuration !== '' ? substr($stream->configuration, 0, 4) : 'apcn', $head.$more),
            // ISO/IEC 14496-1, 7.2.6.6: object type, visual stream
            default => Boxes::box('mp4v',
                $head.Boxes::full('esds', 0, 0,
                    Boxes::descriptor(3,
                        "\0\1\0".Boxes::descriptor(4,
                            chr(self::objectType($stream)).chr(0x11)."\0\0\0".pack('N2', 0, 0).($stream->configuration === '' ? ''
                            : Boxes::descriptor(5, $stream->configuration))).Boxes::descriptor(6, "\2"))).$more),
        };
    }

    /**
     * VP Codec ISO Media File Format Binding 1.0: profile, level, bit depth with the form of chroma and the range, colour, and nothing for
     * the decoder. What Matroska says of these are numbers with their lengths (VP9 Codec Feature Metadata); where it says nothing, it is
     * profile 0, level 1, eight bits, 4:2:0.
     */
    private static function vp9(PictureStream $stream): string
    {
        $features = [1 => 0, 10, 8, 1];
        $told = $stream->configuration;
        for ($at = 0; $at + 3 <= strlen($told) && $told[$at + 1] === "\1"; $at += 3) {
            $features[ord($told[$at])] = ord($told[$at + 2]);
        }
        [$primaries, $transfer, $matrix, $full] = $stream->colour ?? [2, 2, 2, false];

        return pack('C6n', $features[1], $features[2], $features[3] << 4 | ($features[4] & 7) << 1 | ($full ? 1 : 0), $primaries,
            $transfer, $matrix, 0);
    }

    /** ISO/IEC 14496-1, table 5; MPEG-2 by the profile in its sequence extension: ISO/IEC 13818-2, 6.2.2.3 and table 8-2. */
    private static function objectType(PictureStream $stream): int
    {
        if ($stream->codec === Codec::Mpeg4Visual) {
            return self::VISUAL;
        }
        $at = strpos($stream->configuration, "\0\0\1\xB5");
        if ($stream->codec === Codec::Mpeg1Video) {
            return self::MPEG_1;
        }
        if ($at === false) {
            return self::MPEG_2[4];
        }
        $profile = (ord($stream->configuration[$at + 4] ?? "\0") & 15) << 4 | ord($stream->configuration[$at + 5] ?? "\0") >> 4;

        return ($profile & 0x80) !== 0 ? self::MPEG_2_422 : self::MPEG_2[$profile >> 4 & 7] ?? self::MPEG_2[4];
    }

    /**
     * The codec of an entry `mp4v`, by the object type in its descriptor.
     *
     * @throws BytesMissing
     */
    public static function codec(string $esds): Codec
    {
        // Four bytes of version and flags stand before.
        $type = ElementaryDescriptor::read(substr($esds, 4))->objectType;

        return match (true) {
            $type === self::MPEG_1 => Codec::Mpeg1Video,
            $type >= min(self::MPEG_2) && $type <= self::MPEG_2_422 => Codec::Mpeg2Video,
            default => Codec::Mpeg4Visual,
        };
    }

    /** The entry of chapter titles: QuickTime File Format Specification, "Text Sample Description". */
    public static function text(): string
    {
        return Boxes::box('text', str_repeat("\0", 6).pack('n', 1).pack('N2', 0, 1).str_repeat("\0", 6).str_repeat("\0", 8).str_repeat("\0",
            8).pack('n2', 0, 0)."\0".pack('n4', 0, 0, 0, 0)."\0");
    }
}
