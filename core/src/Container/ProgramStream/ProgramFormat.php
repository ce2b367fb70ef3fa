<?php

declare(strict_types=1);

namespace Octavox\Core\Container\ProgramStream;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Codec\Dts\DtsFrameParser;
use Octavox\Core\Codec\Mp3\MpegFrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\Mpeg\ElementaryReader;
use Octavox\Core\Container\Mpeg\ElementaryTrack;
use Octavox\Core\Container\Mpeg\VideoDiscPcm;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Media\Codec;

/** MPEG program streams: ISO/IEC 11172-1 and 13818-1, 2.5; with the private streams of video discs. */
final class ProgramFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. Titles of discs are program streams. */
    public const WITH_PICTURES = ['mpeg-ps', 'dvd-video'];

    /** Bytes from the start in which every stream must show. */
    private const REACH = 4 * 1024 * 1024;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 24 && $bytes->read(0, 4) === "\0\0\1\xBA";
    }

    /**
     * @throws NoTracks
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        $packets = new ProgramPackets($bytes);
        $tracks = [];
        foreach ($packets->packets(0, min($bytes->size(), self::REACH)) as $packet) {
            $tracks[$packet->track] ??= self::track($packet->track, $packet->data);
        }
        $tracks = array_values(array_filter($tracks));
        usort($tracks, fn (ElementaryTrack $a, ElementaryTrack $b): int => [$a->sound, $a->id] <=> [$b->sound, $b->id]);
        if ($tracks === []) {
            throw NoTracks::at($bytes->name());
        }

        return (new ElementaryReader('mpeg-ps', $packets, $tracks))->read();
    }

    /** Numbers of streams: ISO/IEC 13818-1, table 2-22; of private sub-streams those that video discs use, here from 0x100 on. */
    public static function track(int $id, string $data, ?string $language = null, string $name = ''): ?ElementaryTrack
    {
        return match (true) {
            $id >= 0xC0 && $id <= 0xDF => new ElementaryTrack($id, Codec::Mp2, true, new MpegFrameParser, null, $language, '', $name),
            $id >= 0xE0 && $id <= 0xEF => new ElementaryTrack($id, str_contains($data, "\0\0\1\xB5") ? Codec::Mpeg2Video
                : (str_contains($data, "\0\0\1\xB3") ? Codec::Mpeg1Video : Codec::H264), false, null, null),
            $id >= 0x180 && $id <= 0x187 => new ElementaryTrack($id, Codec::Ac3, true, new Ac3FrameParser, null, $language, '', $name),
            $id >= 0x188 && $id <= 0x18F => new ElementaryTrack($id, Codec::Dts, true, new DtsFrameParser, null, $language, '', $name),
            $id >= 0x1A0 && $id <= 0x1A7 => new ElementaryTrack($id, Codec::Pcm, true, null, new VideoDiscPcm, $language, '', $name),
            default => null,
        };
    }
}
