<?php

declare(strict_types=1);

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** H.264 of 320 × 192, baseline, as its record describes it. */
const RECORD_IN_FLV = '0142c01effe100096742c01eda0506640101000468ce3c80';

/** @param  list<array{int, int, string}>  $tags  kind, milliseconds, body */
function flvFile(array $tags): string
{
    $bytes = "FLV\x01\x05\0\0\0\x09\0\0\0\0";
    foreach ($tags as [$kind, $time, $body]) {
        // The highest byte of the time stands behind the others.
        $bytes .= chr($kind).substr(pack('N', strlen($body)), 1).substr(pack('N', $time), 1).chr($time >> 24 & 255)."\0\0\0".$body
            .pack('N', 11 + strlen($body));
    }

    return $bytes;
}

/**
 * Pictures 40 ms apart, shown two late and one early in turn, and AAC beside them.
 *
 * @return array{string, list<string>, list<int>, string} the file, the pictures, when each is shown from the first on, the sound's packets
 */
function flvVideo(int $count, int $from): array
{
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48_000, Layout::stereo()), RateControl::exactly(96),
        [Signal::sweep(1920 * $count), Signal::sweep(1920 * $count)]);
    $tags = [[9, 0, "\x17\0\0\0\0".hex2bin(RECORD_IN_FLV)], [8, 0, "\xAF\0".$encoder->audio()->config]];
    $pictures = $shown = [];
    $next = 0;
    for ($index = 0; $index < $count; $index++) {
        $place = $index === 0 ? 0 : $index + [2, -1, -1][($index - 1) % 3];
        $pictures[] = $data = pack('N', 100 + $index).str_repeat(chr($index + 1), 100 + $index);
        $shown[] = 40 * $place;
        $tags[] = [9, $from + 40 * $index, chr($index % 10 === 0 ? 0x17 : 0x27)."\1".substr(pack('N', 40 * ($place - $index)), 1).$data];
        for (; isset($packets[$next]) && $packets[$next]->start <= 1920 * $index; $next++) {
            $tags[] = [8, $from + (int) round($packets[$next]->start / 48), "\xAF\1".$packets[$next]->data];
        }
    }

    return [flvFile($tags), $pictures, $shown,
        implode('', array_map(fn (Packet $packet): string => $packet->data, array_slice($packets, 0, $next)))];
}

it('takes pictures and sound of a stream as they are into every video that carries them', function (string $container, int $from) {
    [$bytes, $pictures, $shown, $sound] = flvVideo(31, $from);
    $path = Scratch::write('live.flv', $bytes);
    $reading = Reader::read($path);
    expect([$reading->picture()->picture->width, $reading->picture()->picture->height])->toBe([320, 192])
        ->and($reading->picture()->picture->perSecond)->toEqualWithDelta(25.0, 0.001)
        ->and($reading->sound()[0]->timeline->startOffset)->toBe(48 * $from);
    $made = (new Maker)
        ->make(Planning::plan($reading, Spec::video(VideoOutputs::named($container), null, RateControl::none(), Scratch::folder())), 'f');
    $opened = Opener::open($made->path);
    assert($opened->media instanceof VideoSource);
    $stream = $opened->media->pictureStream($opened->picture());
    $samples = [...$opened->media->pictures($opened->picture())];
    $times = array_map(fn ($one): int => (int) round($one->pts * 1000 / $stream->timescale), $samples);
    expect(array_map(fn ($one): string => $one->data->bytes(), $samples))->toBe($pictures)
        ->and(array_map(fn (int $time): int => $time - min($times), $times))
        ->toBe(array_map(fn (int $time): int => $time - min($shown), $shown))
        ->and(array_keys(array_filter(array_map(fn ($one): bool => $one->key, $samples))))->toBe([0, 10, 20, 30])
        ->and(bin2hex($stream->configuration))->toBe(RECORD_IN_FLV)
        ->and(Signal::packetsOf($made->path))->toBe(hash('xxh128', $sound))
        ->and(Reader::read($made->path)->sound()[0]->timeline->startOffset)->toBe(0);
})->with(['mp4', 'mov', 'mkv'])
    ->with(['from the start' => 0, 'after a while' => 5000, 'after more than 24 bits of milliseconds' => (1 << 24) + 7000]);

it('names the sound of a stream by its one byte of facts', function (int $facts, string $codec, int $rate, int $channels) {
    $read = fn (): Reading => Reader::read(Scratch::write('facts.flv', flvFile(array_map(
        fn (int $number): array => [8, 20 * $number, chr($facts).str_repeat(chr($number), 160)], range(0, 20)))));
    $sound = $read()->sound()[0]->sound;
    expect([CodecModules::describe($sound), $sound->rate, $sound->channels()])->toBe([$codec, $rate, $channels]);
})->with([
    [0x02, '16-bit PCM', 5512, 1], [0x3F, '16-bit PCM', 44_100, 2], [0x3D, '8-bit PCM', 44_100, 2], [0x36, '16-bit PCM', 11_025, 1],
    [0x7A, 'A-law PCM', 8000, 1], [0x8A, 'µ-law PCM', 8000, 1], [0x1E, 'ADPCM of Flash', 44_100, 1], [0x5A, 'Nellymoser', 22_050, 1],
    [0xB6, 'Speex in Flash', 11_025, 1],
]);

it('says which pictures of a stream cannot be copied, and that there is none where there is none', function (int $codec, string $label) {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 44_100, Layout::mono()), RateControl::exactly(64),
        [Signal::sweep(20_000)]);
    $tags = [[8, 0, "\xAF\0".$encoder->audio()->config]];
    foreach ($packets as $number => $packet) {
        $tags[] = [9, 23 * $number, chr(0x10 | $codec).str_repeat('p', 90)];
        $tags[] = [8, 23 * $number, "\xAF\1".$packet->data];
    }
    $reading = Reader::read(Scratch::write('old.flv', flvFile($tags)));
    expect($reading->picture()->picture->label)->toBe($label)
        ->and(fn () => Planning::plan($reading, Spec::video(VideoOutputs::named('mkv'), null, RateControl::none(), '/x')))
        ->toThrow(CannotPlan::class, $label)
        ->and(Planning::plan($reading, Spec::sound(Outputs::named('aac'), RateControl::none(), '/x'))->sounds)->toHaveCount(1)
        ->and(fn () => Reader::read(Scratch::write('empty.flv', flvFile([]))))->toThrow(NoTracks::class);
})->with([[2, 'H.263'], [4, 'VP6'], [3, 'screen video']]);
