<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\TransportWriter;
use Octavox\Core\Tests\Support\Scratch;

/*
 * Files that are too long to be looked at as a whole when they are read: the same facts must come of looking at a few places.
 */

/** Pictures of one second, so large that a recording of them passes every limit. */
const SECONDS_OF_LARGE = 44;

/**
 * @return array{AudioFormat, int, list<Packet>} what it became, decoder's delay, packets: 44 seconds of a tone that is encoded once'
     .' for a second
 *                                               and repeated, as far as the codec allows
 */
function longSound(Codec $codec, int $rate): array
{
    $layout = Layout::stereo();
    $audio = match ($codec) {
        Codec::Pcm => AudioFormat::pcm(SampleFormat::signed(16), $rate, $layout),
        Codec::Flac, Codec::Alac => new AudioFormat($codec, $rate, $layout, null, '', 0, '', 16),
        default => new AudioFormat($codec, $rate, $layout),
    };
    $second = array_map(fn (int $index): float => 0.3 * sin($index / 30), range(0, $rate - 1));
    $encoder = Codecs::encoder($audio, CodecModules::of($codec)->isLossless() ? RateControl::none() : RateControl::near(128),
        SECONDS_OF_LARGE * $rate);
    $packets = [];
    for ($time = 0; $time < SECONDS_OF_LARGE; $time++) {
        array_push($packets, ...$encoder->encode(Block::fromChannels([$second, $second])));
    }
    array_push($packets, ...$encoder->finish());

    return [$encoder->audio(), $encoder->delay(), $packets];
}

function largeMatroska(string $path, Codec $codec, int $rate, int $pictureBytes): void
{
    [$audio, $delay, $packets] = longSound($codec, $rate);
    $sink = FileSink::create($path);
    $writer = VideoOutputs::named('mkv')->writer($sink, new VideoParts(new PictureStream(Codec::H264, 320, 192, 1000, 1.0,
        (string) hex2bin('0142c01effe100096742c01eda0506640101000468ce3c80')), 0,
        [new VideoSound($audio, 0, $delay, SECONDS_OF_LARGE * $rate, 'eng', '', $packets[0]->data)], Tags::none(), [],
        (float) SECONDS_OF_LARGE));
    $next = 0;
    $data = pack('N', $pictureBytes).str_repeat('p', $pictureBytes);
    for ($second = 0; $second < SECONDS_OF_LARGE; $second++) {
        $writer->picture(new PictureSample(Stretch::of($data), 1000 * $second, 1000 * $second, 1000, true));
        for (; isset($packets[$next]) && $packets[$next]->start < ($second + 1) * $rate; $next++) {
            $writer->sound(0, $packets[$next]);
        }
    }
    for (; isset($packets[$next]); $next++) {
        $writer->sound(0, $packets[$next]);
    }
    $writer->finish();
    $sink->flush();
    $sink->close();
}

it('knows of a large Matroska file what it knows of a small one', function (Codec $codec, int $rate) {
    $facts = [];
    foreach (['small' => 1000, 'large' => 1_700_000] as $size => $bytes) {
        $path = Scratch::path("$size.mkv");
        largeMatroska($path, $codec, $rate, $bytes);
        $reading = Reader::read($path);
        $track = $reading->sound()[0];
        $opened = Opener::open($path);
        $last = null;
        foreach ($opened->media->packets($opened->sound()[0], $rate * (SECONDS_OF_LARGE - 2), PHP_INT_MAX >> 2) as $packet) {
            $last = $packet;
        }
        $facts[$size] = [$track->timeline->samples(), $track->timeline->coded, $track->timeline->segments[0]->from ?? null,
            $track->timeline->startOffset,
            $reading->picture()->picture->seconds, array_map(fn ($finding) => $finding->toArray(), $reading->findings), $last?->length];
        $starts[] = $last?->start;
        expect(filesize($path) > 64 * 1024 * 1024)->toBe($size === 'large');
        unlink($path);
    }
    // Where packets differ in length, Matroska tells their begins to a millisecond.
    expect($facts['large'])->toBe($facts['small'])->and($facts['large'][0])->toBe(SECONDS_OF_LARGE * $rate)
        ->and(abs($starts[0] - $starts[1]))->toBeLessThanOrEqual($codec === Codec::Vorbis ? intdiv($rate, 1000) : 0);
})->with([[Codec::Aac, 48_000], [Codec::Mp3, 44_100], [Codec::Flac, 44_100], [Codec::Opus, 48_000], [Codec::Vorbis, 44_100],
    [Codec::Pcm, 48_000], [Codec::Mp2, 48_000],
    [Codec::Alac, 44_100]])->group('slow');

/** @param  callable(FileSink): void  $write */
function largeFile(string $name, callable $write): string
{
    $sink = FileSink::create($path = Scratch::path($name));
    $write($sink);
    $sink->flush();
    $sink->close();

    return $path;
}

it('knows of a large transport stream what it knows of a small one', function (Codec $codec, int $type, int $rate) {
    [$audio, , $packets] = longSound($codec, $rate);
    $facts = [];
    foreach (['small' => 800, 'large' => 900_000] as $size => $bytes) {
        $path = largeFile("$size.ts", function (FileSink $sink) use ($packets, $type, $rate, $bytes, $audio, $codec): void {
            $writer = new TransportWriter($sink, [[0x1B, null, ''], [$type, 'eng', '']]);
            $next = 0;
            $sets = "\0\0\0\1".hex2bin('6742c01eda05066401')."\0\0\0\1".hex2bin('68ce3c80');
            for ($second = 0; $second < SECONDS_OF_LARGE; $second++) {
                $writer->write(0, "\0\0\0\1\x09\xF0".$sets."\0\0\1\x65".str_repeat('p', $bytes)."\x80", 99_000 + 90_000 * $second,
                    99_000 + 90_000 * $second);
                for (; isset($packets[$next]) && $packets[$next]->start < ($second + 1) * $rate; $next++) {
                    $data = $codec === Codec::Aac ? AdtsFrameParser::header($audio->config,
                        strlen($packets[$next]->data)).$packets[$next]->data : $packets[$next]->data;
                    $writer->write(1, $data, 99_000 + intdiv($packets[$next]->start * 90_000, $rate));
                }
            }
        });
        $reading = Reader::read($path);
        $track = $reading->sound()[0];
        $opened = Opener::open($path);
        $sum = 0;
        $end = 0;
        foreach ($opened->media->packets($opened->sound()[0], $rate * (SECONDS_OF_LARGE - 3), PHP_INT_MAX >> 2) as $packet) {
            $sum += strlen($packet->data);
            $end = $packet->start + $packet->length;
        }
        $facts[$size] = [$track->timeline->samples(), $track->timeline->startOffset, round($reading->picture()->picture->seconds, 2), $end,
            array_map(fn ($finding) => $finding->toArray(), $reading->findings)];
        expect($sum)->toBeGreaterThan(1000)->and(filesize($path) > 32 * 1024 * 1024)->toBe($size === 'large');
        unlink($path);
    }
    expect($facts['large'])->toBe($facts['small']);
})->with([[Codec::Mp2, 0x03, 48_000], [Codec::Aac, 0x0F, 44_100], [Codec::Mp2, 0x04, 44_100]])->group('slow');

it('notices within a large transport stream that another recording follows', function () {
    [, , $packets] = longSound(Codec::Mp2, 48_000);
    $path = largeFile('joined.ts', function (FileSink $sink) use ($packets): void {
        $writer = new TransportWriter($sink, [[0x1B, null, ''], [0x03, 'eng', '']]);
        $next = 0;
        $sets = "\0\0\0\1".hex2bin('6742c01eda05066401')."\0\0\0\1".hex2bin('68ce3c80');
        for ($second = 0; $second < SECONDS_OF_LARGE; $second++) {
            // In the middle the clock begins anew.
            $clock = 90_000 * ($second < 20 ? 1000 + $second : $second - 20);
            $writer->write(0, "\0\0\0\1\x09\xF0".$sets."\0\0\1\x65".str_repeat('p', 900_000)."\x80", 9000 + $clock, 9000 + $clock);
            for (; isset($packets[$next]) && $packets[$next]->start < ($second + 1) * 48_000; $next++) {
                $writer->write(1, $packets[$next]->data,
                    9000 + $clock + intdiv(($packets[$next]->start - 48_000 * $second) * 90_000, 48_000));
            }
        }
    });
    $track = Reader::read($path)->sound()[0];
    expect($track->timeline->samples())->toEqualWithDelta(SECONDS_OF_LARGE * 48_000, 3 * 1152);
    unlink($path);
})->group('slow');
