<?php

declare(strict_types=1);

use Octavox\Core\Container\Mpeg\CountingClock;
use Octavox\Core\Container\Mpeg\StepClock;

/** Ticks of 90 kHz at which a sample is heard, as writers round them. */
function tickOf(int $sample, int $rate, Closure $rounded): int
{
    return (int) $rounded($sample * 90_000 / $rate);
}

it('places packets in steps, the same whether those before were counted or not', function (int $rate, int $step, int $samples,
    Closure $rounded) {
    mt_srand(7);
    $clock = new StepClock($rate, $step);
    $sample = 0;
    $placed = [];
    for ($packet = 0; $packet < 4000; $packet++) {
        // Now and then a recording was cut: some steps are missing there.
        $sample += mt_rand(0, 99) === 0 ? $step * mt_rand(max(2, intdiv(2000, $step)), max(3, intdiv(90_000, $step))) : 0;
        $tick = tickOf($sample, $rate, $rounded);
        $place = $clock->place($tick, $samples);
        // Rounded times shift a packet that can be cut anywhere by one sample at most, and never one in whole frames.
        expect($place)->toEqualWithDelta($sample, $step === 1 ? 1 : 0)->and($clock->over())->toBe(0);
        $placed[] = [$tick, $place];
        $sample += $samples;
    }
    expect($clock->end())->toEqualWithDelta($sample, $step === 1 ? 1 : 0)->and($clock->bases())->toBe(0);
    foreach (array_filter($placed, fn (int $index): bool => $index % 97 === 0, ARRAY_FILTER_USE_KEY) as [$tick, $place]) {
        expect((new StepClock($rate, $step))->place($tick, $samples))->toEqualWithDelta($place, $step === 1 ? 1 : 0);
    }
})->with([
    'frames of 1536 at 48 kHz' => [48_000, 1536, 1536, floor(...)],
    'frames of 1152 at 44.1 kHz' => [44_100, 1152, 1152, round(...)],
    'frames of 576 at 22.05 kHz' => [22_050, 576, 576, ceil(...)],
    'two frames in a packet' => [48_000, 1024, 2048, round(...)],
    'packets cut anywhere at 96 kHz' => [96_000, 1, 501, floor(...)],
    'packets cut anywhere at 44.1 kHz' => [44_100, 1, 80, round(...)],
]);

it('leaves out of a packet what another has already', function () {
    $clock = new StepClock(48_000, 1);
    expect($clock->place(0, 960))->toBe(0)
        // Ten milliseconds of twenty were there before.
        ->and($clock->place(900, 960))->toBe(960)->and($clock->over())->toBe(480)->and($clock->end())->toBe(1440)
        // One that is wholly there already is not placed at all, and changes nothing.
        ->and($clock->place(0, 960))->toBeNull()->and($clock->end())->toBe(1440)
        // Those without a time follow.
        ->and($clock->place(null, 960))->toBe(1440)->and($clock->over())->toBe(0)->and($clock->end())->toBe(2400);
});

it('takes a jump of hours for damage, not for silence', function (int $seconds, bool $isGap) {
    $clock = new StepClock(48_000, 1536);
    $clock->place(0, 1536);
    $place = $clock->place($seconds * 90_000, 1536);
    expect($place > 1536)->toBe($isGap);
})->with([[1, true], [3500, true], [3601, false], [90_000, false]]);

it('counts where a stream is counted, and begins anew where its times do', function () {
    $clock = new CountingClock(48_000, 10.0);
    expect($clock->place(0, 1536))->toBe(0)->and($clock->place(null, 1536))->toBe(1536)
        // Times that differ by less than a sample or two say nothing.
        ->and($clock->place(5761, 1536))->toBe(3072)
        // A second is missing.
        ->and($clock->place(3 * 2880 + 90_000, 1536))->toBe(4608 + 48_000)->and($clock->bases())->toBe(0)
        // The times begin anew: what follows is counted on.
        ->and($clock->place(0, 1536))->toBe(6144 + 48_000)->and($clock->bases())->toBe(1)
        ->and($clock->place(2880, 1536))->toBe(7680 + 48_000)
        ->and($clock->end())->toBe(9216 + 48_000)->and($clock->over())->toBe(0);
});
