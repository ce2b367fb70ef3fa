<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Waveform;
use Octavox\Core\Analysis\WaveformLayout;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Segment;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\TimePosition;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

function shapedBy(string $path, string $format, SoundSpec $shaping, ?RateControl $rateControl = null): array
{
    $rateControl ??= RateControl::none();
    $spec = Spec::sound(Outputs::named($format), $rateControl, Scratch::folder(), shaping: $shaping);

    return array_map(fn ($plan) => (new Maker)->make($plan, 'chance'), Planning::plans(Reader::read($path), $spec));
}

it('cuts any pieces out of kept sound where the whole has them, to the sample', function (string $format, float $alike, int $seed) {
    static $sources = [];
    $wave = Scratch::write('whole.wav', Signal::wave([Signal::sweep(120_000, 0.4, 0.000002), Signal::sweep(120_000, 0.3, 0.000003)],
        SampleFormat::signed(16)));
    $sources[$format] ??= shapedBy($wave, $format, new SoundSpec,
        in_array($format, ['flac', 'alac', 'wavpack'], true) ? RateControl::none() : RateControl::exactly(160))[0]->path;
    $whole = Signal::decodeFile($sources[$format]);
    mt_srand($seed);
    for ($time = 0; $time < 4; $time++) {
        $begin = mt_rand(0, 90_000);
        $end = $begin + mt_rand(200, 29_000);
        $made = shapedBy($sources[$format], $format, new SoundSpec(pieces: "$begin#-$end#", exact: true))[0];
        $cut = Signal::decodeFile($made->path);
        expect([count($cut), count($cut[0]), $made->receipt?->samples])->toBe([2, $end - $begin, $end - $begin]);
        foreach ([0, 1] as $channel) {
            $wanted = array_slice($whole[$channel], $begin, $end - $begin);
            if ($alike === 0.0) {
                expect($cut[$channel] === $wanted)->toBeTrue("$begin-$end");
            } else {
                expect(Signal::difference($wanted, $cut[$channel]))->toBeLessThan($alike, "$begin-$end of channel $channel");
            }
        }
    }
})->with([['mp3', -60.0], ['aac', -60.0], ['opus', -40.0], ['flac', 0.0], ['alac', 0.0], ['wavpack', 0.0]])->with([1, 2, 3])->group('slow');

it('joins any pieces in any order', function (int $seed) {
    $sound = [Signal::steps(30_000, 1), Signal::steps(30_000, 2)];
    $wave = Scratch::write('whole.wav', Signal::wave($sound, SampleFormat::signed(16)));
    mt_srand($seed);
    $pieces = [];
    $wanted = [[], []];
    for ($number = mt_rand(1, 7); $number > 0; $number--) {
        $begin = mt_rand(0, 29_990);
        $end = mt_rand($begin + 1, 30_000);
        $pieces[] = "$begin#-$end#";
        foreach ([0, 1] as $channel) {
            array_push($wanted[$channel], ...array_slice($sound[$channel], $begin, $end - $begin));
        }
    }
    foreach (['wav', 'flac'] as $format) {
        $made = shapedBy($wave, $format, new SoundSpec(pieces: implode(',', $pieces)))[0];
        expect(Signal::decodeFile($made->path) === $wanted)->toBeTrue(implode(',', $pieces));
    }
    $each = shapedBy($wave, 'wav', new SoundSpec(pieces: implode(',', $pieces), separate: true));
    expect(array_sum(array_map(fn ($one): int => $one->receipt->samples, $each)))->toBe(count($wanted[0]))->and($each)
        ->toHaveCount(count($pieces));
})->with(range(1, 10));

it('routes any channels as arithmetic has it', function (int $channels, int $seed) {
    $sound = array_map(fn (int $one): array => array_map(fn (float $sample): float => $sample * 0.1, Signal::steps(4000, $one)),
        range(1, $channels));
    $wave = Scratch::write('channels.wav', Signal::wave($sound, SampleFormat::float(32)));
    mt_srand($seed);
    for ($time = 0; $time < 5; $time++) {
        $files = [];
        $wanted = [];
        for ($file = mt_rand(1, 3); $file > 0; $file--) {
            $written = $rows = [];
            for ($out = mt_rand(1, 3); $out > 0; $out--) {
                $parts = $row = [];
                foreach (array_unique([mt_rand(1, $channels), mt_rand(1, $channels), mt_rand(1, $channels)]) as $in) {
                    $decibels = mt_rand(0, 1) === 1 ? 0 : mt_rand(-24, 6);
                    $sign = mt_rand(0, 3) === 0 ? '-' : '';
                    $parts[] = $sign.$in.($decibels === 0 ? '' : "@$decibels");
                    $row[$in - 1] = ($sign === '-' ? -1 : 1) * 10 ** ($decibels / 20);
                }
                $written[] = ltrim(str_replace('+-', '-', implode('+', $parts)), '+');
                $rows[] = $row;
            }
            $files[] = implode(',', array_map(fn (string $one): string => $one, $written));
            $wanted[] = $rows;
        }
        $map = implode('/', $files);
        if (str_contains($map, '-') && preg_match('/\d-\d/', $map) === 1) {
            // A minus between two channels is written as a sum.
            continue;
        }
        $made = shapedBy($wave, 'float', new SoundSpec(layout: $map));
        expect($made)->toHaveCount(count($wanted));
        foreach ($made as $number => $one) {
            $out = Signal::decodeFile($one->path);
            expect(count($out))->toBe(count($wanted[$number]), $map);
            foreach ($wanted[$number] as $channel => $row) {
                foreach ([0, 1, 1999, 3999] as $at) {
                    $sum = array_sum(array_map(fn (int $in, float $gain): float => $gain * $sound[$in][$at], array_keys($row), $row));
                    expect($out[$channel][$at])->toEqualWithDelta($sum, 2e-6, "$map, channel $channel, sample $at");
                }
            }
        }
    }
})->with([1, 2, 6])->with([1, 2, 3, 4]);

it('reads a map as it is written, and writes no two ways the same', function () {
    foreach (['1/2', '2,1', '1@-6+2@-6', '1,-2', '1+2+3,4@-3.5/5,6', '0,1', '-1@2.5'] as $text) {
        $map = ChannelMap::parse($text, Layout::undeclared(6));
        expect($map->results)->toHaveCount(substr_count($text, '/') + 1)
            ->and(array_sum(array_map(fn ($one): int => $one->layout->count(), $map->results)))
            ->toBe(substr_count($text, ',') + substr_count($text, '/') + 1);
    }
});

it('draws of any sound the lowest and highest sample of every step, in each resolution', function (int $channels, int $frames) {
    mt_srand($frames);
    $sound = array_map(fn (): array => array_map(fn (): float => mt_rand(-32_768, 32_767) / 32_768, range(1, $frames)),
        range(1, $channels));
    $sink = new MemorySink;
    $meter = new Analyzer(48_000, Layout::undeclared($channels), $sink, $frames);
    for ($at = 0; $at < $frames; $at += $count) {
        $count = min(mt_rand(1, 5000), $frames - $at);
        $meter->take(Block::fromChannels(array_map(fn (array $one): array => array_slice($one, $at, $count), $sound)));
    }
    $meter->finish();
    $waveform = Waveform::open(new MemoryBytes($sink->bytes()));
    foreach ([1, 7, 100, 100_000] as $most) {
        [$step, $first, $bytes] = $waveform->window(0, $frames, $most);
        $values = WaveformLayout::values($bytes);
        expect($first)->toBe(0)->and(count($values))->toBe((int) ceil($frames / $step) * $channels * 2);
        foreach (range(0, (int) ceil($frames / $step) - 1) as $column) {
            foreach (range(0, $channels - 1) as $channel) {
                $part = array_slice($sound[$channel], $column * $step, $step);
                $at = ($column * $channels + $channel) * 2;
                if ([$values[$at], $values[$at + 1]] !== [(int) round(min($part) * 32_768), (int) round(max($part) * 32_768)]) {
                    expect([$step, $column, $channel, $values[$at], $values[$at + 1]])
                        ->toBe([(int) round(min($part) * 32_768), max($part)]);
                }
            }
        }
    }
})->with([1, 2, 3])->with([1, 255, 256, 257, 20_000, 70_000]);

it('takes of any segments what lies between two places', function (int $seed) {
    mt_srand($seed);
    $segments = $samples = [];
    $place = 0;
    for ($number = mt_rand(1, 8); $number > 0; $number--) {
        $length = mt_rand(1, 50);
        $place += mt_rand(0, 30);
        $isSilent = mt_rand(0, 2) === 0;
        $segments[] = $isSilent ? Segment::silence($length) : Segment::media($place, $length);
        array_push($samples, ...($isSilent ? array_fill(0, $length, null) : range($place, $place + $length - 1)));
        $place += $isSilent ? 0 : $length;
    }
    $spread = function (array $segments): array {
        $spread = [];
        foreach ($segments as $segment) {
            array_push($spread, ...($segment->from === null ? array_fill(0, $segment->length, null)
                : range($segment->from, $segment->from + $segment->length - 1)));
        }

        return $spread;
    };
    expect($spread($segments))->toBe($samples)->and(Segment::total($segments))->toBe(count($samples))
        ->and(Segment::silent($segments))->toBe(count(array_filter($samples, is_null(...))));
    for ($time = 0; $time < 20; $time++) {
        $from = mt_rand(0, count($samples) - 1);
        $until = mt_rand($from, count($samples));
        expect($spread(Segment::between($segments, $from, $until)))->toBe(array_slice($samples, $from, $until - $from));
    }
})->with(range(1, 12));

it('reads any time as it writes it', function (int $rate) {
    mt_srand($rate);
    foreach (range(1, 200) as $time) {
        $samples = mt_rand(0, 100_000_000);
        expect(TimePosition::parse(TimePosition::write($samples, $rate), $rate, 200_000_000))
            ->toEqualWithDelta($samples, $rate / 1000 + 1)
            ->and(TimePosition::parse($samples.'#', $rate, 200_000_000))->toBe($samples);
    }
})->with([8000, 44_100, 48_000, 96_000, 11_025]);
