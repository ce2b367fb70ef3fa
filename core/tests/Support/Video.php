<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Container\IsoMedia\Boxes;
use Octavox\Core\Container\IsoMedia\Edit;
use Octavox\Core\Container\IsoMedia\MovieStream;
use Octavox\Core\Container\IsoMedia\SoundEntry;
use Octavox\Core\Container\IsoMedia\StreamTrack;
use Octavox\Core\Container\Matroska\MatroskaTrack;
use Octavox\Core\Container\Matroska\MatroskaWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\TransportWriter;

/** Videos of 25 pictures a second, which no decoder will ever see, with sound that begins $late milliseconds after them. */
final class Video
{
    /**
     * @param  list<Packet>  $packets
     * @param  int  $skip  decoded samples that are not presented, where the container can say that
     * @param  int  $samples  that are presented
     */
    public static function of(string $container, AudioFormat $audio, array $packets, int $skip, int $samples, int $late = 0): string
    {
        return match ($container) {
            'mp4', 'mov' => self::movie($container, $audio, $packets, $skip, $samples, $late),
            'mkv', 'webm' => self::matroska($container, $audio, $packets, $skip, $samples, $late),
            'ts' => self::transport($audio, $packets, $late, 188),
            'm2ts' => self::transport($audio, $packets, $late, 192),
            'ts204' => self::transport($audio, $packets, $late, 204),
            'mpg' => self::program($audio, $packets, $late),
            'avi' => self::avi($audio, $packets, $late),
            'flv' => self::flv($audio, $packets, $late),
            default => throw new \LogicException($container),
        };
    }

    /** @param  list<Packet>  $packets */
    private static function movie(string $container, AudioFormat $audio, array $packets, int $skip, int $samples, int $late): string
    {
        $sink = new MemorySink;
        $quickTime = $container === 'mov';
        $picture = Boxes::box('avc1', str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 16).pack('n2N2Nn', 64, 48, 0x480000, 0x480000, 0,
            1).str_repeat("\0", 32).pack('n2', 24, 0xFFFF).Boxes::box('avcC', "\x01\x42\xC0\x1E\xFF\xE0\x00"));
        $tracks = [new StreamTrack('vide', $picture, 25, width: 64, height: 48),
            new StreamTrack('soun', SoundEntry::box($audio, $quickTime, $packets[0]->data), $audio->rate, $audio->frameBytes(),
                language: 'eng')];
        $writer = new MovieStream($sink, $quickTime ? 'qt  ' : 'isom', $tracks, Tags::none(), 48000, 100_000);
        $pictures = 0;
        foreach ($packets as $packet) {
            while ($pictures * $audio->rate <= 25 * $packet->start) {
                $writer->write(0, pack('N', 200).str_repeat('p', 200), 1, 0, $pictures++ === 0);
            }
            $writer->write(1, $packet->data, $packet->length);
        }
        $edits = $late > 0 ? [new Edit($late * 48, -1)] : [];
        $tracks[1]->present([...$edits, new Edit((int) round($samples * 48000 / $audio->rate), $skip)]);
        $writer->finish();

        return $sink->bytes();
    }

    /** @param  list<Packet>  $packets */
    private static function matroska(string $container, AudioFormat $audio, array $packets, int $skip, int $samples, int $late): string
    {
        $sink = new MemorySink;
        $writer = new MatroskaWriter($sink, $container === 'webm' ? 'webm' : 'matroska',
            [MatroskaTrack::picture('V_VP8', '', 64, 48, 40_000_000), MatroskaTrack::sound($audio, $skip, 'eng')], Tags::none());
        $pictures = 0;
        $total = array_sum(array_map(fn (Packet $packet): int => $packet->length, $packets));
        foreach ($packets as $index => $packet) {
            while ($pictures * 40 <= $late + intdiv($packet->start * 1000, $audio->rate)) {
                $writer->write(0, str_repeat('p', 200), 40_000_000 * $pictures++, true, 40_000_000);
            }
            $discard = $index === count($packets) - 1 ? max(0, $total - $skip - $samples) : 0;
            $writer->write(1, $packet->data, $late * 1_000_000 + (int) round($packet->start * 1e9 / $audio->rate), true,
                (int) round($packet->length * 1e9 / $audio->rate), (int) round($discard * 1e9 / $audio->rate));
        }
        $writer->finish();

        return $sink->bytes();
    }

    /** @param  list<Packet>  $packets */
    private static function transport(AudioFormat $audio, array $packets, int $late, int $step): string
    {
        $sink = new MemorySink;
        $disc = $audio->codec === Codec::Pcm;
        $type = match ($audio->codec) {
            Codec::Aac => 0x0F,
            Codec::Pcm => 0x80,
            default => 0x03,
        };
        $writer = new TransportWriter($sink, [[0x1B, null, ''], [$type, 'eng', '']], $step, $disc ? "\x05\x04HDMV" : '');
        // The clock runs over the end of its 33 bits half a second after the start.
        $origin = (1 << 33) - 45_000;
        $pictures = 0;
        foreach (self::elementary($audio, $packets) as [$data, $start]) {
            while ($pictures * 40 <= $late + intdiv($start * 1000, $audio->rate)) {
                $writer->write(0, "\0\0\0\1\x09\xF0".str_repeat('v', 800), $origin + 3600 * $pictures + 3600, $origin + 3600 * $pictures++);
            }
            $writer->write(1, $data, $origin + 3600 + 90 * $late + (int) round($start * 90_000 / $audio->rate));
        }

        return $sink->bytes();
    }

    /** @param  list<Packet>  $packets */
    private static function program(AudioFormat $audio, array $packets, int $late): string
    {
        $time = fn (int $ticks): string => chr(0x21 | $ticks >> 30 << 1).pack('n', ($ticks >> 15 & 0x7FFF) << 1 | 1).pack('n',
            ($ticks & 0x7FFF) << 1 | 1);
        $pack = "\0\0\1\xBA\x44\0\4\0\4\1\0\0\x03\xF8";
        $bytes = $pack;
        $pictures = 0;
        foreach (self::elementary($audio, $packets) as [$data, $start]) {
            while ($pictures * 40 <= $late + intdiv($start * 1000, $audio->rate)) {
                $body = "\x80\x80\x05".$time(9000 + 3600 * $pictures).($pictures++ === 0 ? "\0\0\1\xB3\x04\x00\x30\x13\0\0\0\0\0\0\1\xB5"
                    : '').str_repeat('v', 300);
                $bytes .= $pack."\0\0\1\xE0".pack('n', strlen($body)).$body;
            }
            $body = "\x80\x80\x05".$time(9000 + 90 * $late + (int) round($start * 90_000 / $audio->rate)).$data;
            $bytes .= $pack."\0\0\1".($audio->codec === Codec::Pcm ? "\xBD" : "\xC0").pack('n', strlen($body)).$body;
        }

        return $bytes."\0\0\1\xB9";
    }

    /**
     * Frames with the heads that streams without a container need, and their first samples.
     *
     * @param  list<Packet>  $packets
     * @return iterable<array{string, int}>
     */
    private static function elementary(AudioFormat $audio, array $packets): iterable
    {
        foreach ($packets as $packet) {
            if ($audio->codec !== Codec::Pcm) {
                yield [($audio->codec === Codec::Aac ? AdtsFrameParser::header($audio->config, strlen($packet->data))
                    : '').$packet->data, $packet->start];

                continue;
            }
            $width = $audio->frameBytes();
            foreach (str_split($packet->data, 240 * $width) as $index => $part) {
                yield [self::pcmHead($audio).$part, $packet->start + 240 * $index];
            }
        }
    }

    /** High-definition discs have four bytes; the seven of video discs begin with the number of the sub-stream. */
    private static function pcmHead(AudioFormat $audio): string
    {
        return str_contains($audio->variant, 'disc')
            ? "\xA0\x01\0\4\0".chr(($audio->bits() === 24 ? 2 : 0) << 6 | $audio->channels() - 1)."\x80"
            : pack('n', 240 * $audio->frameBytes()).chr(match ($audio->channels()) {
                6 => 9,
                2 => 3,
                default => 1,
            } << 4 | 1).chr($audio->bits() === 24 ? 0xC0 : 0x40);
    }

    /** @param  list<Packet>  $packets */
    private static function avi(AudioFormat $audio, array $packets, int $late): string
    {
        $chunk = fn (string $name, string $body): string => $name.pack('V', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
        $format = match ($audio->codec) {
            Codec::Pcm => pack('vvVVvv', 1, $audio->channels(), $audio->rate, $audio->rate * $audio->frameBytes(),
                $audio->frameBytes(), $audio->bits()),
            Codec::Mp3 => pack('vvVVvvvvVvvv', 0x55, $audio->channels(), $audio->rate, 16000, 1, 0, 12, 1, 2, 480, 1, 1393),
            default => $audio->config,
        };
        $block = $audio->codec === Codec::Pcm ? $audio->frameBytes() : 1;
        $second = $audio->codec === Codec::Pcm ? $audio->rate * $block : 16000;
        $sound = $chunk('strh', 'auds'.str_repeat("\0", 16).pack('V7', $block, $second, (int) round($late * $second / $block / 1000), 0, 0,
            0, $block).str_repeat("\0", 8)).$chunk('strf', $format);
        $picture = $chunk('strh', 'vidsMJPG'.str_repeat("\0", 12).pack('V7', 1, 25, 0, 0, 0, 0, 0).str_repeat("\0", 8)).$chunk('strf',
            pack('V3vvVVVVVV', 40, 64, 48, 1, 24, 0, 0, 0, 0, 0, 0));
        $movie = 'movi';
        $index = '';
        $pictures = 0;
        foreach ($packets as $packet) {
            while ($pictures * $audio->rate <= 25 * $packet->start) {
                $index .= '00dc'.pack('V3', 0x10, strlen($movie), 201);
                $movie .= $chunk('00dc', str_repeat('j', 201));
                $pictures++;
            }
            // Chunks end anywhere, as with capture cards.
            foreach (str_split($packet->data, 1001) as $part) {
                $index .= '01wb'.pack('V3', 0x10, strlen($movie), strlen($part));
                $movie .= $chunk('01wb', $part);
            }
        }
        $body = 'AVI '.$chunk('LIST', 'hdrl'.$chunk('avih', str_repeat("\0", 56)).$chunk('LIST', 'strl'.$picture).$chunk('LIST',
            'strl'.$sound)).$chunk('LIST', $movie).$chunk('idx1', $index);

        return 'RIFF'.pack('V', strlen($body)).$body;
    }

    /** @param  list<Packet>  $packets */
    private static function flv(AudioFormat $audio, array $packets, int $late): string
    {
        $previous = 0;
        $tag = function (int $kind, int $time, string $body) use (&$previous): string {
            $bytes = pack('N', $previous).chr($kind).substr(pack('N', strlen($body)), 1).substr(pack('N', $time), 1)."\0\0\0\0".$body;
            $previous = 11 + strlen($body);

            return $bytes;
        };
        $first = $audio->codec === Codec::Aac ? "\xAF" : ($audio->codec === Codec::Mp3 ? "\x2F" : "\x3F");
        $bytes = "FLV\x01\x05\0\0\0\x09".($audio->codec === Codec::Aac ? $tag(8, 0, $first."\0".$audio->config) : '');
        $pictures = 0;
        foreach ($packets as $packet) {
            while ($pictures * 40 <= $late + intdiv($packet->start * 1000, $audio->rate)) {
                $bytes .= $tag(9, 40 * $pictures++, "\x17\1\0\0\0".str_repeat('p', 100));
            }
            $bytes .= $tag(8, $late + intdiv($packet->start * 1000, $audio->rate),
                $first.($audio->codec === Codec::Aac ? "\1" : '').$packet->data);
        }

        return $bytes.pack('N', $previous);
    }
}
