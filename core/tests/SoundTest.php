<?php

declare(strict_types=1);

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Dither;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LevelMeter;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\NoStandardMix;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Sound\Stage;
use Octavox\Core\Sound\Time;
use Octavox\Core\Tests\Support\Signal;

/** @return list<list<float>> */
function through(Stage $stage, Block $block, int $step = 3000): array
{
    $result = [];
    $take = function (iterable $blocks) use (&$result): void {
        foreach ($blocks as $part) {
            foreach ($part->toChannels() as $channel => $samples) {
                $result[$channel] = [...($result[$channel] ?? []), ...$samples];
            }
        }
    };
    for ($from = 0; $from < $block->frames; $from += $step) {
        $take($stage->take($block->part($from, min($step, $block->frames - $from))));
    }
    $take($stage->finish());

    return $result;
}

it('rescales counts exactly and rounds halves upward', function (int $value, int $from, int $to, int $result) {
    expect(Time::rescale($value, $from, $to))->toBe($result);
})->with([
    [48000, 48000, 44100, 44100], [1, 2, 1, 1], [1, 3, 1, 0], [2, 3, 1, 1],
    [345_600_000_001, 48000, 44100, 317_520_000_001], [1 << 52, 90000, 48000, 2_401_919_801_264_265],
]);

it('mixes by the standard coefficients without clipping', function () {
    $fold = Mix::between(Layout::fiveOne(), Layout::stereo())->gains;
    $sum = 1 + 2 * M_SQRT1_2;
    expect($fold[0])->toEqualWithDelta([1 / $sum, 0, M_SQRT1_2 / $sum, 0, M_SQRT1_2 / $sum, 0], 1e-9)
        ->and($fold[1])->toEqualWithDelta([0, 1 / $sum, M_SQRT1_2 / $sum, 0, 0, M_SQRT1_2 / $sum], 1e-9)
        ->and(Mix::between(Layout::stereo(), Layout::mono())->gains)->toBe([[0.5, 0.5]])
        ->and(Mix::between(Layout::mono(), Layout::stereo())->gains)->toBe([[1.0], [1.0]])
        ->and(Mix::between(Layout::stereo(), Layout::stereo())->isStraight())->toBeTrue()
        ->and(array_sum(Mix::between(Layout::sevenOne(), Layout::mono())->gains[0]))->toBeLessThanOrEqual(1.0 + 1e-9)
        ->and(fn () => Mix::between(Layout::stereo(), Layout::fiveOne()))->toThrow(NoStandardMix::class);
    // A surround alone goes to both sides, each 3 dB below the level of surrounds: ATSC A/52, 7.8.2.
    $behind = Mix::between(Layout::of(Channel::Left, Channel::Right, Channel::BackCentre), Layout::stereo())->gains;
    expect($behind[0])->toEqualWithDelta([1 / 1.5, 0, 0.5 / 1.5], 1e-9)->and($behind[1])->toEqualWithDelta([0, 1 / 1.5, 0.5 / 1.5], 1e-9);
});

it('applies a mix sample by sample', function () {
    [$mono] = through(new Mixer(Mix::between(Layout::stereo(), Layout::mono())),
        Block::fromChannels([[0.5, -0.25, 1.0, 0.0], [0.25, 0.25, -1.0, 0.5]]), 3);
    expect($mono)->toEqualWithDelta([0.375, 0.0, 0.0, 0.25], 1e-7);
});

it('names layouts and keeps their order through the mask', function () {
    expect(Layout::fiveOne()->name())->toBe('5.1')
        ->and(Layout::fromMask(0x3F, 6)->name())->toBe('5.1')
        ->and(Layout::fromMask(0x60F, 6)->equals(Layout::fiveOne()))->toBeTrue()
        ->and(Layout::fromMask(0, 2)->equals(Layout::stereo()))->toBeTrue()
        ->and(Layout::fromMask(0, 5)->channels)->toBe(array_fill(0, 5, Channel::Unplaced))
        ->and(Layout::undeclared(10_000)->count())->toBe(Layout::MOST_CHANNELS);
});

it('changes the rate to the exact number of frames, at the right pitch and level', function (int $from, int $to) {
    $sound = Signal::sine($from, 1000, $from);
    [$result] = through(new RateChange($from, $to, 1, true), Block::fromChannels([$sound]));
    expect(count($result))->toBe($to)
        ->and(Signal::difference(Signal::sine($to, 1000, $to), $result, intdiv($to, 10), intdiv($to * 9, 10)))->toBeLessThan(-80.0);
})->with([[48000, 44100], [44100, 48000], [48000, 8000], [8000, 48000], [96000, 48000]]);

it('gives one sample for one sample', function () {
    expect(through(new RateChange(48000, 44100, 2, false), Block::fromChannels([[0.5], [0.5]])))->toHaveCount(2)->each->toHaveCount(1);
});

it('dithers with triangular noise of one step, the same each time', function () {
    $silence = array_fill(0, 200_000, 0.0);
    [$noise] = through(new Dither(16), Block::fromChannels([$silence]), 50_000);
    [$again] = through(new Dither(16), Block::fromChannels([$silence]), 50_000);
    $step = 2.0 ** -15;
    $mean = array_sum($noise) / count($noise);
    $variance = array_sum(array_map(fn (float $value): float => $value ** 2, $noise)) / count($noise);
    // Triangular noise from −1 to 1 step has the variance 1/6 step².
    expect(max(array_map(abs(...), $noise)))->toBeLessThanOrEqual($step)
        ->and(abs($mean))->toBeLessThan($step / 100)
        ->and($variance / ($step ** 2 / 6))->toBeBetween(0.98, 1.02)
        ->and($again)->toBe($noise);
});

it('keeps a sound below one step audible through dither, where rounding alone loses it', function () {
    $quiet = Signal::sine(48000, 500, 48000, 0.4 / 32768);
    [$dithered] = through(new Dither(16), Block::fromChannels([$quiet]), 48000);
    $round = fn (array $samples): array => array_map(fn (float $value): float => round($value * 32768) / 32768, $samples);
    $heard = fn (array $samples): float => abs(array_sum(array_map(fn (float $value,
        int $index): float => $value * sin(2 * M_PI * 500 * $index / 48000), $samples,
        array_keys($samples)))) / 24000;
    expect($heard($round($quiet)))->toBe(0.0)
        ->and($heard($round($dithered)) / (0.4 / 32768))->toBeBetween(0.85, 1.15);
});

it('measures peak and RMS', function () {
    $meter = new LevelMeter;
    $meter->measure(Block::fromChannels([Signal::sine(48000, 1000, 48000, 0.5)]));
    expect($meter->level()->peakDecibels())->toEqualWithDelta(-6.02, 0.01)
        ->and($meter->level()->rmsDecibels())->toEqualWithDelta(-9.03, 0.01)
        ->and((new LevelMeter)->level()->peakDecibels())->toBeNull();
});

it('decodes and encodes every PCM form without changing a bit', function (SampleFormat $pcm, int $channels) {
    $audio = AudioFormat::pcm($pcm, 48000, Layout::undeclared($channels));
    $count = 5001 * $channels;
    $bytes = match (true) {
        $pcm->kind === SampleKind::Float => pack(($pcm->bits === 32 ? ($pcm->bigEndian ? 'G' : 'g') : ($pcm->bigEndian ? 'E' : 'e')).'*',
            ...Signal::steps($count, 7)),
        // 32-bit numbers pass through 24 bits of precision; those that fit come back.
        $pcm->bits === 32 => pack($pcm->bigEndian ? 'N*' : 'V*',
            ...array_map(fn (float $value): int => (int) ($value * 32768) << 16 & 0xFFFFFFFF, Signal::steps($count, 7))),
        default => implode('',
            array_map(fn (int $index): string => substr(hash('sha256', (string) $index, true), 0, $pcm->bytes()), range(1, $count))),
    };
    if ($pcm->kind === SampleKind::MuLaw) {
        // µ-law has two zeros; the negative one is written as the positive.
        $bytes = str_replace("\x7F", "\xFF", $bytes);
    }
    $block = Codecs::decoder($audio)->decode(new Packet($bytes, 0, 5001));
    $written = '';
    foreach (Codecs::encoder($audio, RateControl::none())->encode($block) as $packet) {
        $written .= $packet->data;
    }
    expect($block->frames)->toBe(5001)->and($written === $bytes)->toBeTrue();
})->with([
    '8 unsigned' => [SampleFormat::unsigned8(), 1], '8 signed' => [SampleFormat::signed(8), 2],
    '16' => [SampleFormat::signed(16), 2], '16 big' => [SampleFormat::signed(16, true), 1],
    '24' => [SampleFormat::signed(24), 6], '24 big' => [SampleFormat::signed(24, true), 2],
    '32' => [SampleFormat::signed(32), 2], '32 big' => [SampleFormat::signed(32, true), 1],
    'float' => [SampleFormat::float(32), 2], 'float big' => [SampleFormat::float(32, true), 2],
    'double' => [SampleFormat::float(64), 1], 'double big' => [SampleFormat::float(64, true), 2],
    'A-law' => [new SampleFormat(SampleKind::ALaw, 8), 1], 'µ-law' => [new SampleFormat(SampleKind::MuLaw, 8), 2],
]);

it('rounds to the nearest step and limits at full scale', function (int $bits) {
    $step = 2.0 ** (1 - $bits);
    $audio = AudioFormat::pcm($bits === 8 ? SampleFormat::unsigned8() : SampleFormat::signed($bits), 48000, Layout::mono());
    $written = '';
    foreach (Codecs::encoder($audio, RateControl::none())
        ->encode(Block::fromChannels([[3.4 * $step, 3.6 * $step, -3.4 * $step, -3.6 * $step, 1.5, -1.5]])) as $packet) {
        $written .= $packet->data;
    }
    [$back] = Codecs::decoder($audio)->decode(new Packet($written, 0, 6))->toChannels();
    expect(array_map(fn (float $value): float => round($value / $step), $back))
        ->toEqualWithDelta([3, 4, -3, -4, 2 ** ($bits - 1) - 1, -(2 ** ($bits - 1))], 1e-6);
})->with([8, 16, 24]);
