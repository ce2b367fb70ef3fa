<?php

declare(strict_types=1);

namespace Octavox\Bench;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Container\Matroska\Elements;
use Octavox\Core\Container\Matroska\Id;
use Octavox\Core\Container\Matroska\MatroskaTrack;
use Octavox\Core\Testing\TransportWriter;

/** Long films for measuring: real AAC, pictures that are holes in a sparse file. */
final class Video
{
    private const FRAME = 1024;

    private const RATE = 48000;

    /**
     * @param  list<string>  $packets  repeated for as long as needed
     * @param  int  $pictureBytes  of each half second of pictures; 0 leaves the picture track out
     */
    public static function write(string $path, string $config, array $packets, int $seconds, int $pictureBytes): void
    {
        $count = intdiv($seconds * self::RATE, self::FRAME);
        $file = self::open($path);
        fwrite($file, self::box('ftyp', "mp42\0\0\2\0mp42isom"));
        $data = (int) ftell($file);
        fwrite($file, pack('N', 1).'mdat'.pack('J', 0));
        $sizes = [];
        $soundAt = [];
        $pictureAt = [];
        $perChunk = 24;
        for ($packet = 0; $packet < $count; $packet += $perChunk) {
            if ($pictureBytes > 0) {
                $pictureAt[] = (int) ftell($file);
                fseek($file, $pictureBytes, SEEK_CUR);
            }
            $soundAt[] = (int) ftell($file);
            $bytes = '';
            for ($index = $packet; $index < min($count, $packet + $perChunk); $index++) {
                $one = $packets[$index % count($packets)];
                $bytes .= $one;
                $sizes[] = strlen($one);
            }
            fwrite($file, $bytes);
        }
        $end = (int) ftell($file);
        $tracks = '';
        if ($pictureBytes > 0) {
            $each = 12;
            $entry = self::box('avc1', str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 16).pack('n2', 1920, 1080).str_repeat("\0", 50));
            $pictures = $each * count($pictureAt);
            $tracks .= self::track(1, 'vide', 25, $pictures, $entry, pack('N3', 1, $pictures, 1),
                pack('N2', 0, $pictures).str_repeat(pack('N', intdiv($pictureBytes, $each)), $pictures),
                pack('N4', 1, 1, $each, 1), $pictureAt);
        }
        $descriptor = fn (int $tag, string $body): string => chr($tag).chr(strlen($body)).$body;
        $entry = self::box('mp4a',
            str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 8).pack('n4N', 2, 16, 0, 0, self::RATE << 16).self::box('esds',
                "\0\0\0\0".$descriptor(3, "\0\1\0".$descriptor(4, chr(0x40).chr(0x15).str_repeat("\0", 11).$descriptor(5, $config)))));
        $tracks .= self::track(2, 'soun', self::RATE, $count * self::FRAME, $entry, pack('N3', 1, $count, self::FRAME),
            pack('N2', 0, $count).pack('N*', ...$sizes), pack('N4', 1, 1, $perChunk, 1), $soundAt);
        fwrite($file, self::box('moov',
            self::box('mvhd', str_repeat("\0", 12).pack('N2', 1000, $seconds * 1000).str_repeat("\0", 80)).$tracks));
        fseek($file, $data + 8);
        fwrite($file, pack('J', $end - $data));
        fclose($file);
    }

    /**
     * The same as Matroska: a cluster each half second.
     *
     * @param  list<string>  $packets
     * @param  int  $pictureBytes  of each half second
     *
     * @throws BytesMissing
     */
    public static function matroska(string $path, string $config, array $packets, int $seconds, int $pictureBytes): void
    {
        $file = self::open($path);
        $picture = MatroskaTrack::picture('V_VP8', '', 1920, 1080, 40_000_000)->entry(1);
        $sound = MatroskaTrack::sound(AudioSpecificConfig::parse($config)->audio(), 0)->entry(2);
        fwrite($file, Elements::master(Id::EBML, Elements::bytes(Id::DOC_TYPE, 'matroska')).Elements::id(Id::SEGMENT)
            ."\x01\xFF\xFF\xFF\xFF\xFF\xFF\xFF"
            .Elements::master(Id::INFO, Elements::number(Id::TIMESTAMP_SCALE, 1_000_000),
                Elements::real(Id::DURATION, $seconds * 1000.0)).Elements::master(Id::TRACKS, $picture, $sound));
        $count = intdiv($seconds * self::RATE, self::FRAME);
        for ($first = 0; $first < $count; $first += 24) {
            $time = intdiv($first * self::FRAME * 1000, self::RATE);
            $blocks = '';
            for ($index = $first; $index < min($count, $first + 24); $index++) {
                $blocks .= Elements::bytes(Id::SIMPLE_BLOCK,
                    "\x82".pack('n', intdiv($index * self::FRAME * 1000, self::RATE) - $time)."\x80".$packets[$index % count($packets)]);
            }
            $head = Elements::number(Id::TIMESTAMP, $time);
            $block = Elements::id(Id::SIMPLE_BLOCK).Elements::size($pictureBytes + 4)."\x81\0\0\x80";
            fwrite($file, Elements::id(Id::CLUSTER)
                .Elements::size(strlen($head) + strlen($block) + $pictureBytes + strlen($blocks)).$head.$block);
            fseek($file, $pictureBytes, SEEK_CUR);
            fwrite($file, $blocks);
        }
        fclose($file);
    }

    /**
     * The same as a transport stream; its pictures cannot be holes, because every packet has its mark.
     *
     * @param  list<string>  $packets
     * @param  int  $pictureBytes  of each half second
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function transport(string $path, string $config, array $packets, int $seconds, int $pictureBytes): void
    {
        @unlink($path);
        $sink = FileSink::create($path);
        $writer = new TransportWriter($sink, [[0x1B, null, ''], [0x0F, 'eng', '']]);
        $filling = str_repeat("\x47\x01\x00\x10".str_repeat('v', 184), max(1, intdiv($pictureBytes, 188)));
        $count = intdiv($seconds * self::RATE, self::FRAME);
        for ($index = 0; $index < $count; $index++) {
            $time = 90_000 + intdiv($index * self::FRAME * 90_000, self::RATE);
            if ($index % 24 === 0) {
                $writer->write(0, "\0\0\0\1\x09\xF0", $time);
                $sink->write($filling);
            }
            $data = $packets[$index % count($packets)];
            $writer->write(1, AdtsFrameParser::header($config, strlen($data)).$data, $time);
        }
        $sink->close();
    }

    /** @param  list<int>  $offsets */
    private static function track(int $number, string $kind, int $timescale, int $ticks, string $entry, string $times, string $sizes,
        string $chunks, array $offsets): string
    {
        $table = self::full('stsd', pack('N', 1).$entry).self::full('stts', $times).self::full('stsz', $sizes).self::full('stsc',
            $chunks).self::full('co64', pack('N', count($offsets)).pack('J*', ...$offsets));
        $header = self::full('tkhd', pack('N5', 0, 0, $number, 0, 0).str_repeat("\0", 60));
        $media = self::full('mdhd', pack('N4n2', 0, 0, $timescale, $ticks, 0x55C4, 0)).self::full('hdlr',
            "\0\0\0\0".$kind.str_repeat("\0", 13)).self::box('minf', self::box('stbl', $table));

        return self::box('trak', $header.self::box('mdia', $media));
    }

    private static function full(string $type, string $body): string
    {
        return self::box($type, "\0\0\0\0".$body);
    }

    private static function box(string $type, string $body): string
    {
        return pack('N', 8 + strlen($body)).$type.$body;
    }

    /** @return resource */
    private static function open(string $path)
    {
        return fopen($path, 'w+b') ?: throw new \RuntimeException("$path cannot be written.");
    }
}
