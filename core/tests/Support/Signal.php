<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\MpegAudio\MpegAudioWriter;
use Octavox\Core\Container\Wave\WaveWriter;
use Octavox\Core\Decode\FrameReader;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\MovieWriter;
use Octavox\Core\Testing\WriterTrack;

/** Known signals, and files that hold them. */
final class Signal
{
    /** @return list<float> a tone whose pitch rises, so that every place in it is different */
    public static function sweep(int $count, float $level = 0.4, float $rise = 0.00001, float $start = 0.02): array
    {
        $samples = [];
        for ($index = 0; $index < $count; $index++) {
            $samples[] = $level * sin($start * $index + $rise * $index * $index / 2);
        }

        return $samples;
    }

    /** @return list<float> */
    public static function sine(int $count, float $hertz, int $rate, float $level = 0.5): array
    {
        $samples = [];
        for ($index = 0; $index < $count; $index++) {
            $samples[] = $level * sin(2 * M_PI * $hertz * $index / $rate);
        }

        return $samples;
    }

    /** @return list<float> whole 16-bit steps, so that 16-bit PCM holds them exactly */
    public static function steps(int $count, int $seed): array
    {
        $samples = [];
        for ($index = 0; $index < $count; $index++) {
            $seed = ($seed * 1664525 + 1013904223) & 0xFFFFFFFF;
            $samples[] = (($seed >> 16) - 32768) / 32768.0;
        }

        return $samples;
    }

    /**
     * @param  list<list<float>>  $channels
     * @return array{Encoder, list<Packet>}
     */
    public static function encode(AudioFormat $audio, RateControl $rateControl, array $channels): array
    {
        $encoder = Codecs::encoder($audio, $rateControl);
        $packets = [];
        $block = Block::fromChannels($channels);
        for ($from = 0; $from < $block->frames; $from += 5000) {
            foreach ($encoder->encode($block->part($from, min(5000, $block->frames - $from))) as $packet) {
                $packets[] = $packet;
            }
        }
        foreach ($encoder->finish() as $packet) {
            $packets[] = $packet;
        }

        return [$encoder, $packets];
    }

    /** @param  list<list<float>>  $channels */
    public static function aacTrack(array $channels, int $rate = 48000, string $language = 'eng', int $lateTicks = 0): WriterTrack
    {
        [$encoder, $packets] = self::encode(new AudioFormat(Codec::Aac, $rate, Layout::undeclared(count($channels))),
            RateControl::exactly(160), $channels);

        return WriterTrack::sound($encoder->audio(), $packets, $encoder->delay(), count($channels[0]), $language, $lateTicks);
    }

    /** @param  list<list<float>>  $channels */
    public static function pcmTrack(array $channels, SampleFormat $pcm, int $rate = 48000): WriterTrack
    {
        [$encoder, $packets] = self::encode(AudioFormat::pcm($pcm, $rate, Layout::undeclared(count($channels))),
            RateControl::none(), $channels);

        return WriterTrack::sound($encoder->audio(), $packets, 0, count($channels[0]), 'und');
    }

    /** Pictures that no decoder will ever see: only their bytes and times count. */
    public static function pictureTrack(int $pictures, int $bytesEach = 200): WriterTrack
    {
        return WriterTrack::h264(array_map(fn (int $number): string => pack('N', $bytesEach).str_repeat(chr($number & 255), $bytesEach),
            range(1, $pictures)), [0], "\x01\x42\xC0\x1E\xFF\xE0\x00", 64, 48, 25, 1);
    }

    /** @param  non-empty-list<WriterTrack>  $tracks */
    public static function movie(array $tracks, bool $indexFirst = true, string $brand = 'mp42', ?Tags $tags = null,
        int $timescale = 48000): string
    {
        $sink = new MemorySink;
        (new MovieWriter($brand, $tracks, $tags ?? Tags::none(), $timescale))->write($sink, $indexFirst);

        return $sink->bytes();
    }

    /** @param  list<list<float>>  $channels */
    public static function wave(array $channels, SampleFormat $pcm, int $rate = 48000, ?Tags $tags = null, ?Layout $layout = null): string
    {
        $sink = new MemorySink;
        [$encoder, $packets] = self::encode(AudioFormat::pcm($pcm, $rate, $layout ?? Layout::undeclared(count($channels))),
            RateControl::none(), $channels);
        $writer = new WaveWriter($sink, $encoder->audio(), $tags ?? Tags::none(), count($channels[0]));
        foreach ($packets as $packet) {
            $writer->write($packet);
        }
        $writer->finish(count($channels[0]), $encoder->audio());

        return $sink->bytes();
    }

    /** @param  list<list<float>>  $channels */
    public static function mp3(array $channels, RateControl $rateControl, int $rate = 48000, ?Tags $tags = null): string
    {
        [$encoder, $packets] = self::encode(new AudioFormat(Codec::Mp3, $rate, Layout::undeclared(count($channels))), $rateControl,
            $channels);
        $sink = new MemorySink;
        $writer = new MpegAudioWriter($sink, $encoder->audio(), $tags ?? Tags::none(), $encoder->delay(), $encoder->maker());
        foreach ($packets as $packet) {
            $writer->write($packet);
        }
        $writer->finish(count($channels[0]), $encoder->audio());

        return $sink->bytes();
    }

    /** A box as its standard writes it. */
    public static function box(string $type, string $body, bool $long = false): string
    {
        return $long ? pack('N', 1).$type.pack('J', 16 + strlen($body)).$body : pack('N', 8 + strlen($body)).$type.$body;
    }

    /** XXH128 of all packets of a file's first sound track. */
    public static function packetsOf(string $path): string
    {
        $source = Opener::open($path);
        $hash = hash_init('xxh128');
        foreach ($source->media->packets($source->sound()[0], 0, PHP_INT_MAX >> 2) as $packet) {
            hash_update($hash, $packet->data);
        }

        return hash_final($hash);
    }

    /** @return list<list<float>> all that a file presents, one list a channel */
    public static function decodeFile(string $path): array
    {
        $reader = FrameReader::open($path);
        $room = new FloatBuffer(max(1, $reader->frames) * $reader->channels);
        $frames = $reader->read($room, $reader->frames);

        return (new Block($room, $frames, $reader->channels))->toChannels();
    }

    /**
     * Level of the difference between two signals against the first, in dB.
     *
     * @param  list<float>  $a
     * @param  list<float>  $b
     */
    public static function difference(array $a, array $b, int $from = 0, ?int $until = null): float
    {
        $sound = 1e-20;
        $difference = 1e-20;
        for ($index = $from; $index < ($until ?? min(count($a), count($b))); $index++) {
            $sound += $a[$index] ** 2;
            $difference += ($a[$index] - $b[$index]) ** 2;
        }

        return 10 * log10($difference / $sound);
    }
}
