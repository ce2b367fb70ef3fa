<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return list<float> a sine after a change of rate, as a 32-bit float WAV holds it */
function resampled(float $hertz, int $from, int $to, int $frames): array
{
    $wave = Scratch::write('tone.wav', Signal::wave([Signal::sine($frames, $hertz, $from)], SampleFormat::float(32), $from));
    $spec = Spec::sound(Outputs::named('float'), RateControl::none(), Scratch::folder(), rate: $to);

    return Signal::decodeFile((new Maker)->make(Planning::plan(Reader::read($wave), $spec), 'rate')->path)[0];
}

/** Level of a frequency in the middle of a sound, by its correlation with sine and cosine. */
function levelAt(array $samples, float $hertz, int $rate): float
{
    $middle = array_slice($samples, intdiv(count($samples), 4), intdiv(count($samples), 2));
    $sine = $cosine = 0.0;
    foreach ($middle as $index => $sample) {
        $sine += $sample * sin(2 * M_PI * $hertz * $index / $rate);
        $cosine += $sample * cos(2 * M_PI * $hertz * $index / $rate);
    }

    return 2 * hypot($sine, $cosine) / count($middle);
}

it('keeps a tone at its pitch, level and place through every pair of rates', function (int $from, int $to) {
    $frames = $from;
    $out = resampled(440.0, $from, $to, $frames);
    expect(count($out))->toBe((int) round($frames * $to / $from))->and(levelAt($out, 440.0, $to))->toEqualWithDelta(0.5, 0.002);
    // Sample by sample where it should be: neither late nor early.
    $off = 0.0;
    foreach (range(intdiv(count($out), 4), intdiv(count($out), 2)) as $index) {
        $off = max($off, abs($out[$index] - 0.5 * sin(2 * M_PI * 440.0 * $index / $to)));
    }
    expect($off)->toBeLessThan(0.002);
})->with([8000, 44_100, 48_000, 96_000])->with([8000, 11_025, 22_050, 32_000, 44_100, 48_000, 88_200, 96_000]);

it('lets nothing through that the new rate cannot hold', function (int $from, int $to, float $hertz) {
    $out = resampled($hertz, $from, $to, $from);
    $loudest = max(array_map(abs(...), array_slice($out, intdiv(count($out), 4), intdiv(count($out), 2))));
    expect(20 * log10(max(1e-9, $loudest)))->toBeLessThan(-80.0);
})->with([[48_000, 8000, 5000.0], [48_000, 16_000, 9000.0], [48_000, 44_100, 23_500.0], [96_000, 48_000, 30_000.0],
    [96_000, 44_100, 40_000.0],
    [44_100, 22_050, 15_000.0]]);

it('keeps what the new rate can hold', function (int $from, int $to, float $hertz) {
    expect(levelAt(resampled($hertz, $from, $to, $from), $hertz, $to))->toEqualWithDelta(0.5, 0.01);
})->with([[48_000, 8000, 3400.0], [48_000, 16_000, 7000.0], [96_000, 44_100, 19_000.0], [44_100, 48_000, 19_500.0],
    [48_000, 22_050, 9500.0]]);

it('gives the same whatever blocks the sound comes in', function (int $from, int $to) {
    $sound = [Signal::sweep(20_000, 0.4, 0.00001), Signal::steps(20_000, 3)];
    $whole = null;
    foreach ([20_000, 977, 64, 1] as $size) {
        $change = new RateChange($from, $to, 2, true);
        $out = '';
        for ($at = 0; $at < 20_000; $at += $count) {
            $count = $size === 977 ? min(mt_rand(1, 977), 20_000 - $at) : min($size, 20_000 - $at);
            foreach ($change->take(Block::fromChannels(array_map(fn (array $one): array => array_slice($one, $at, $count),
                $sound))) as $block) {
                $out .= $block->bytes();
            }
        }
        foreach ($change->finish() as $block) {
            $out .= $block->bytes();
        }
        $whole ??= $out;
        expect($out === $whole)->toBeTrue("blocks of $size");
    }
})->with([[48_000, 44_100], [44_100, 48_000], [48_000, 8000]]);

it('makes of any short sound as many samples as its length says', function (int $frames) {
    foreach ([[48_000, 44_100], [8000, 96_000], [44_100, 48_000]] as [$from, $to]) {
        $wanted = (int) round($frames * $to / $from);
        if ($wanted > 0) {
            expect(count(resampled(100.0, $from, $to, $frames)))->toBe($wanted);
        }
    }
})->with([1, 2, 3, 10, 99, 100, 101, 4095, 4096, 4097]);
