<?php

declare(strict_types=1);

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Deemphasis;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Piece;

/**
 * What comes out where the sound comes in blocks of so many frames.
 *
 * @param  list<Piece>  $stretches
 * @param  list<float>  $samples  of two channels, one after the other
 * @return list<float>
 */
function deemphasized(array $stretches, array $samples, Closure $frames, int $rate = 44_100): array
{
    $stage = new Deemphasis($stretches, $rate, 2);
    $out = [];
    $collect = function (iterable $blocks) use (&$out): void {
        foreach ($blocks as $block) {
            array_push($out, ...array_values((array) unpack('g*', $block->bytes())));
        }
    };
    for ($at = 0, $all = intdiv(count($samples), 2); $at < $all; $at += $count) {
        $count = min($all - $at, $frames());
        $collect($stage->take(new Block(FloatBuffer::fromBytes(pack('g*', ...array_slice($samples, 2 * $at, 2 * $count))), $count, 2)));
    }
    $collect($stage->finish());

    return $out;
}

/** @return list<float> */
function noisy(int $frames): array
{
    mt_srand(50);

    return array_map(fn (): float => mt_rand(-1000, 1000) / 1024, range(1, 2 * $frames));
}

it('filters the same however the sound is cut into blocks', function () {
    $stretches = [new Piece(100, 1500), new Piece(1500, 1530), new Piece(3000, 3001)];
    $samples = noisy(4000);
    $whole = deemphasized($stretches, $samples, fn (): int => 4000);
    expect(count($whole))->toBe(8000);
    foreach ([fn (): int => 1, fn (): int => 51, fn (): int => 52, fn (): int => 53, fn (): int => mt_rand(1, 300)] as $frames) {
        $cut = deemphasized($stretches, $samples, $frames);
        expect(count($cut))->toBe(8000);
        foreach ($cut as $index => $value) {
            if (abs($value - $whole[$index]) > 1e-6) {
                expect($value)->toEqualWithDelta($whole[$index], 1e-6, "sample $index");
            }
        }
    }
    // What lies beside the stretches is handed on as it came.
    foreach ([[0, 100], [1530, 3000], [3001, 4000]] as [$from, $until]) {
        expect(array_slice($whole, 2 * $from, 2 * ($until - $from)))->toBe(array_slice($samples, 2 * $from, 2 * ($until - $from)));
    }
});

it('is the recursive filter of first order, and starts each stretch from silence', function () {
    $samples = noisy(2000);
    $got = deemphasized([new Piece(0, 1000), new Piece(1000, 2000)], $samples, fn (): int => 333);
    // Of the response to one sample, the second value and the ratio of those after it give zero and pole.
    $response = deemphasized([new Piece(0, 60)], [1.0, 0.0, ...array_fill(0, 118, 0.0)], fn (): int => 60);
    $first = $response[0];
    $pole = $response[4] / $response[2];
    $zero = $response[2] / $first - $pole;
    expect($pole)->toBeBetween(0.6, 0.66);
    foreach ([0, 1] as $channel) {
        for ($frame = 0, $before = $held = 0.0; $frame < 2000; $frame++) {
            [$before, $held] = $frame === 1000 ? [0.0, 0.0] : [$before, $held];
            $in = $samples[2 * $frame + $channel];
            $held = $first * ($in + $zero * $before) + $pole * $held;
            $before = $in;
            if (abs($held - $got[2 * $frame + $channel]) > 2e-6) {
                expect($got[2 * $frame + $channel])->toEqualWithDelta($held, 2e-6, "frame $frame");
            }
        }
    }
    // What does not change passes as it is.
    $still = deemphasized([new Piece(0, 500)], array_fill(0, 1000, 0.5), fn (): int => 100);
    expect(end($still))->toEqualWithDelta(0.5, 1e-6);
});

it('meets the curve of the standard at every rate that discs have been copied at', function (int $rate, float $most) {
    $response = deemphasized([new Piece(0, 60)], [1.0, 0.0, ...array_fill(0, 118, 0.0)], fn (): int => 60, $rate);
    for ($hertz = 0; $hertz <= 20_000 && $hertz < 0.45 * $rate; $hertz += 250) {
        [$real, $imaginary] = [0.0, 0.0];
        for ($tap = 0; $tap < 60; $tap++) {
            $real += $response[2 * $tap] * cos(2 * M_PI * $hertz * $tap / $rate);
            $imaginary -= $response[2 * $tap] * sin(2 * M_PI * $hertz * $tap / $rate);
        }
        expect(10 * log10($real ** 2 + $imaginary ** 2))->toEqualWithDelta(Deemphasis::curve((float) $hertz), $most, "$hertz Hz");
    }
})->with([[44_100, 0.12], [48_000, 0.12], [32_000, 0.15]]);
