<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Container\Film\PictureStream;

/** Reads what a picture's sample entry tells, and builds one for pictures that come from elsewhere. */
final class PictureEntry
{
    /** Bytes of a visual sample entry before its boxes: ISO/IEC 14496-12, 12.1.3. */
    private const HEAD = 78;

    private const MOST_BYTES = 1 << 20;

    public static function read(BoxReader $boxes, Box $entry, Codec $codec, int $width, int $height, int $timescale, float $perSecond, string $matrix, ?string $language, ?int $firstShown): ?PictureStream
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
                $configuration = self::visual($boxes->contentBytes($child));
            } elseif ($child->type === 'pasp' && $child->bodyLength() >= 8) {
                $cursor = $boxes->content($child);
                $spacing = [$cursor->u32be(), $cursor->u32be()];
            } elseif ($child->type === 'colr' && $child->bodyLength() >= 10) {
                $cursor = $boxes->content($child);
                $kind = $cursor->take(4);
                if ($kind === 'nclx' || $kind === 'nclc') {
                    $colour = [$cursor->u16be(), $cursor->u16be(), $cursor->u16be(), $kind === 'nclx' && $cursor->remaining() > 0 && ($cursor->u8() & 0x80) !== 0];
                }
            }
        }

        return new PictureStream($codec, $width, $height, $timescale, $perSecond, $configuration, $boxes->bytes->read($entry->at, $entry->end - $entry->at), $matrix, $spacing === [1, 1] ? null : $spacing, $colour, $language, $firstShown);
    }

    /** The sample entry: the very one it came with, or one built from what is known. */
    public static function box(PictureStream $stream, bool $quickTime): string
    {
        if ($stream->entry !== '') {
            return $stream->entry;
        }
        $head = str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 16).pack('n2N2Nn', $stream->width, $stream->height, 0x480000, 0x480000, 0, 1).str_repeat("\0", 32).pack('n2', 24, 0xFFFF);
        $more = ($stream->spacing === null ? '' : Boxes::box('pasp', pack('N2', ...$stream->spacing)))
            .($stream->colour === null ? '' : Boxes::box('colr', ($quickTime ? 'nclc' : 'nclx').pack('n3', $stream->colour[0], $stream->colour[1], $stream->colour[2]).($quickTime ? '' : ($stream->colour[3] ? "\x80" : "\0"))));

        return match ($stream->codec) {
            Codec::H264 => Boxes::box('avc1', $head.Boxes::box('avcC', $stream->configuration).$more),
            Codec::H265 => Boxes::box('hvc1', $head.Boxes::box('hvcC', $stream->configuration).$more),
            Codec::Av1 => Boxes::box('av01', $head.Boxes::box('av1C', $stream->configuration).$more),
            // VP Codec ISO Media File Format Binding 1.0: profile 0, level 1, eight bits, 4:2:0, colour not told
            Codec::Vp9 => Boxes::box('vp09', $head.Boxes::full('vpcC', 1, 0, "\0\x0A\x82\x02\x02\x02\0\0").$more),
            Codec::MotionJpeg => Boxes::box('jpeg', $head.$more),
            Codec::Prores => Boxes::box($stream->configuration !== '' ? substr($stream->configuration, 0, 4) : 'apcn', $head.$more),
            // ISO/IEC 14496-1: object type 0x20, visual stream
            default => Boxes::box('mp4v', $head.Boxes::full('esds', 0, 0, Boxes::descriptor(3, "\0\1\0".Boxes::descriptor(4, chr(0x20).chr(0x11)."\0\0\0".pack('N2', 0, 0).Boxes::descriptor(5, $stream->configuration)).Boxes::descriptor(6, "\2"))).$more),
        };
    }

    /** The entry of chapter titles: QuickTime File Format Specification, "Text Sample Description". */
    public static function text(): string
    {
        return Boxes::box('text', str_repeat("\0", 6).pack('n', 1).pack('N2', 0, 1).str_repeat("\0", 6).str_repeat("\0", 8).str_repeat("\0", 8).pack('n2', 0, 0)."\0".pack('n4', 0, 0, 0, 0)."\0");
    }

    /** What the decoder specific information (tag 5) of a descriptor holds. */
    private static function visual(string $esds): string
    {
        for ($at = 4; $at + 2 < strlen($esds); $at++) {
            if ($esds[$at] !== "\x05") {
                continue;
            }
            $length = 0;
            for ($place = $at + 1; $place < min($at + 5, strlen($esds)); $place++) {
                $length = $length << 7 | ord($esds[$place]) & 0x7F;
                if (ord($esds[$place]) < 0x80) {
                    break;
                }
            }
            if ($length > 0 && $place + 1 + $length <= strlen($esds)) {
                return substr($esds, $place + 1, $length);
            }
        }

        return '';
    }
}
