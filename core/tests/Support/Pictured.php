<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Matroska\MatroskaSoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\TransportWriter;

/** Files as other programs make them, with pictures or blocks that Octavox itself does not write so. */
final class Pictured
{
    /** Bytes of a bitmap header for pictures of 320 × 180, with five bytes more for the decoder. */
    public static function header(string $compression): string
    {
        return pack('VVVvva4VVVVV', 45, 320, 180, 1, 24, $compression, 0, 0, 0, 0, 0).'extra';
    }

    /**
     * ASF with sound of Windows Media; 25 pictures a second, which begin 120 ms after the sound, every twelfth of them whole.
     *
     * @param  list<string>  $pictures
     */
    public static function windowsMedia(array $pictures): string
    {
        $objects = [];
        foreach ($pictures as $index => $data) {
            array_push($objects, [40 * $index, str_repeat('s', 1486)], [120 + 40 * $index, $data, 1, $index % 12 === 0]);
        }

        return Asf::file(Asf::format(0x161, 2, 44100, 16000, 1486, 16, "\0\x88\0\0\x0F\0\0\0\0\0"), $objects, bitmap: self::header('WMV3'));
    }

    /**
     * AVI with PCM; 25 pictures a second, every twelfth of them whole.
     *
     * @param  list<string>  $pictures
     */
    public static function avi(array $pictures): string
    {
        $chunk = fn (string $name, string $body): string => $name.pack('V', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
        $movie = 'movi';
        $index = '';
        $sound = substr(Signal::wave([Signal::sweep(1920 * count($pictures))], SampleFormat::signed(16), 48_000), -3840 * count($pictures));
        foreach ($pictures as $number => $data) {
            $index .= '00dc'.pack('V3', $number % 12 === 0 ? 0x10 : 0, strlen($movie), strlen($data));
            $movie .= $chunk('00dc', $data);
            $index .= '01wb'.pack('V3', 0x10, strlen($movie), 3840);
            $movie .= $chunk('01wb', substr($sound, 3840 * $number, 3840));
        }
        $streams = $chunk('LIST',
            'strl'.$chunk('strh', 'vidsxvid'.str_repeat("\0", 12).pack('V7', 1, 25, 0, 50, 0, 0, 0).str_repeat("\0", 8)).$chunk('strf',
                self::header('XVID')))
            .$chunk('LIST', 'strl'.$chunk('strh', 'auds'.str_repeat("\0", 16).pack('V7', 2, 96_000, 0, 96_000, 0, 0, 2).str_repeat("\0", 8))
                    .$chunk('strf', pack('vvVVvv', 1, 1, 48_000, 96_000, 2, 16)));
        $body = 'AVI '.$chunk('LIST', 'hdrl'.$chunk('avih', str_repeat("\0", 56)).$streams).$chunk('LIST', $movie).$chunk('idx1', $index);

        return 'RIFF'.pack('V', strlen($body)).$body;
    }

    /**
     * A transport stream of H.265 of 160 × 96 and MP2. The first two pictures belong to a group whose begin was missed; every tenth from
     * the third on stands alone.
     *
     * @param  int  $late  bytes of each picture that stand at the start of the next packet (ISO/IEC 13818-1, 2.4.3.7: without data
     *          alignment)
     * @return array{string, list<string>, string, list<string>} the stream, the unit of each picture, the record and the parameter
         sets as another library has them
     */
    public static function hevc(int $pictures, int $late = 0): array
    {
        [$record, $parameters, $whole] = ForeignEncoders::hevc(160, 96);
        $sink = new MemorySink;
        $writer = new TransportWriter($sink, [[0x24, null, ''], [0x03, 'eng', '']]);
        $sound = Signal::sweep(1920 * $pictures + 10_000, 0.4, 0.0000015);
        [, $packets] = Signal::encode(new AudioFormat(Codec::Mp2, 48000, Layout::stereo()), RateControl::exactly(256), [$sound, $sound]);
        $next = 0;
        $units = [];
        $held = '';
        for ($index = 0; $index < $pictures; $index++) {
            $key = $index % 10 === 2;
            // Trailing pictures (kind 1) with the same bytes.
            $units[] = $key ? $whole : chr(1 << 1).substr($whole, 1).chr($index + 1);
            $head = $key ? "\0\0\0\1".implode("\0\0\0\1", $parameters) : '';
            $unit = "\0\0\0\1\x46\1\x50".$head."\0\0\1".$units[$index];
            $keep = $index === $pictures - 1 ? strlen($unit) : strlen($unit) - $late;
            $writer->write(0, $held.substr($unit, 0, $keep), 9000 + 3600 * $index, 9000 + 3600 * $index);
            $held = substr($unit, $keep);
            for (; isset($packets[$next]) && $packets[$next]->start <= $index * 1920; $next++) {
                $writer->write(1, $packets[$next]->data, 9000 + intdiv($packets[$next]->start * 90_000, 48000));
            }
        }

        return [$sink->bytes(), $units, $record, $parameters];
    }

    /**
     * Matroska with WavPack of 24 bits, whose blocks have lost their headers.
     *
     * @param  list<list<float>>  $sound
     */
    public static function wavPack(array $sound, Layout $layout): string
    {
        $count = count($sound[0] ?? []);
        $audio = new AudioFormat(Codec::WavPack, 48_000, $layout, null, '', 0, '', 24);
        $encoder = Codecs::encoder($audio, RateControl::none(), $count);
        $sink = new MemorySink;
        // Written as PCM would be, under another name of the same length.
        $writer = new MatroskaSoundWriter($sink, AudioFormat::pcm(SampleFormat::signed(16), 48_000, $layout), Tags::none(), 0);
        foreach ([...$encoder->encode(Block::fromChannels($sound)), ...$encoder->finish()] as $packet) {
            $bare = '';
            for ($at = 0; $at < strlen($packet->data); $at += $size) {
                $size = 8 + unpack('V', $packet->data, $at + 4)[1];
                $block = substr($packet->data, $at, $size);
                $bare .= ($at === 0 ? substr($block, 20, 4) : '').substr($block, 24,
                    8).(count($sound) > 2 ? pack('V', $size - 32) : '').substr($block, 32);
            }
            $writer->write(new Packet($bare, $packet->start, $packet->length));
        }
        $writer->finish($count, $audio);

        return str_replace('A_PCM/INT/LIT', "A_WAVPACK4\0\0\0", $sink->bytes());
    }
}
