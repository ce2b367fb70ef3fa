<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Make\Comparison;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\WriterTrack;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @param  list<list<float>>  $channels */
function heldIn(array $channels, int $rate = 48_000, ?SampleFormat $format = null): string
{
    return Scratch::write('compared '.bin2hex((string) mt_rand()).'.wav',
        Signal::wave($channels, $format ?? SampleFormat::float(32), $rate));
}

/**
 * Level of the difference against the first, by plain arithmetic.
 *
 * @param  list<float>  $a
 * @param  list<float>  $b
 */
function differenceBy(array $a, array $b, int $offset): float
{
    $sound = $difference = 0.0;
    foreach ($a as $index => $sample) {
        if (isset($b[$index + $offset])) {
            $sound += $sample ** 2;
            $difference += ($b[$index + $offset] - $sample) ** 2;
        }
    }

    return 10 * log10($difference / $sound);
}

it('finds by how much one is later, early or late, and what differs then', function (int $offset, float $noise) {
    mt_srand(abs($offset) + 1);
    $sound = Signal::sweep(60_000, 0.4, 0.000003);
    $other = array_map(fn (float $sample): float => $sample + $noise * (mt_rand(-1000, 1000) / 1000), $sound);
    $other = $offset >= 0 ? [...array_fill(0, $offset, 0.0), ...$other] : array_slice($other, -$offset);
    $found = Comparison::of(heldIn([$sound]), heldIn([$other]))->toArray();
    expect($found['offset'])->toBe($offset)->and($found['same_length'])->toBe($offset === 0)->and($found['samples'])
        ->toBe([60_000, 60_000 + $offset])
        ->and($found['identical'])->toBe($offset === 0 && $noise === 0.0)->and($found['comparable'])->toBeTrue();
    $noise === 0.0 || expect($found['difference_db'])->toEqualWithDelta(differenceBy($sound, $other, $offset), 0.02);
})->with([0, 1, -1, 480, -480, 5000, -5000, 20_000])->with([0.0, 0.01]);

it('tells for every channel how much it differs', function () {
    $sides = [Signal::sweep(30_000, 0.4), Signal::sweep(30_000, 0.3, 0.000002), Signal::sweep(30_000, 0.2, 0.000004)];
    $other = [$sides[0], array_map(fn (float $sample): float => 0.9 * $sample, $sides[1]),
        array_map(fn (float $sample): float => -$sample, $sides[2])];
    $found = Comparison::of(heldIn($sides), heldIn($other))->toArray();
    expect($found['channels'][0])->toBeNull()->and($found['channels'][1])->toEqualWithDelta(-20.0, 0.05)->and($found['channels'][2])
        ->toEqualWithDelta(6.02, 0.05)
        ->and($found['identical'])->toBeFalse();
});

it('does not lay over each other what has other rates or channels', function () {
    $sound = Signal::sweep(9000);
    foreach ([[heldIn([$sound]), heldIn([$sound], 44_100)], [heldIn([$sound]), heldIn([$sound, $sound])]] as [$a, $b]) {
        $found = Comparison::of($a, $b);
        expect($found->toArray()['comparable'])->toBeFalse()->and($found->toArray()['identical'])->toBeFalse()
            ->and($found->toArray()['in_step'])->toBeFalse()
            ->and((string) $found->describe())->toContain('their rates or channels differ');
    }
});

it('says in words what it found', function () {
    $sound = Signal::sweep(30_000, 0.4);
    $same = Comparison::of(heldIn([$sound]), heldIn([$sound]))->describe();
    $late = Comparison::of(heldIn([$sound]), heldIn([[...array_fill(0, 300, 0.0), ...$sound]]))->describe();
    $early = Comparison::of(heldIn([[...array_fill(0, 300, 0.0), ...$sound]]), heldIn([$sound]))->describe();
    $softer = Comparison::of(heldIn([$sound]), heldIn([array_map(fn (float $sample): float => 0.9 * $sample, $sound)]))->describe();
    expect($same)->toContain('the same sound, sample for sample')->toContain('30,000')->toContain('no difference')
        ->and($late)->toContain('the second 300 samples late')->and($early)->toContain('the second 300 samples early')
        ->and($softer)->toContain('not the same samples')->toContain('-20.0 dB');
});

it('knows that two fit one picture though the sound of one begins later in its file', function () {
    $sound = Signal::sweep(48_000, 0.4, 0.000003);
    $late = [...array_fill(0, 4800, 0.0), ...$sound];
    $movie = fn (array $samples, int $ticks): string => Scratch::write("late $ticks.mov", Signal::movie([Signal::pictureTrack(30),
        WriterTrack::sound(...[...array_values(pcmPackets($samples)), 0, count($samples), 'und', $ticks])], brand: 'qt  ',
        timescale: 48_000));
    $found = Comparison::of($movie($sound, 4800), $movie($late, 0))->toArray();
    expect($found['in_step'])->toBeTrue()->and($found['samples'][0])->toBe($found['samples'][1] - 4800);
});

/**
 * @param  list<float>  $samples
 * @return array{AudioFormat, list<Packet>}
 */
function pcmPackets(array $samples): array
{
    [$encoder, $packets] = Signal::encode(AudioFormat::pcm(SampleFormat::signed(24, true), 48_000, Layout::mono()),
        RateControl::none(), [$samples]);

    return [$encoder->audio(), $packets];
}
