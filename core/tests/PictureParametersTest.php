<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Codec\Video\SequenceParameters;

/** A number of Exp-Golomb coding, as the standard draws it: as many zeros as bits follow the first one. */
function numberOf(BitWriter $bits, int $number): BitWriter
{
    $length = strlen(decbin($number + 1));

    return ($length > 1 ? $bits->bits(0, $length - 1) : $bits)->bits($number + 1, $length);
}

/** As 7.4.1 wants it: no three bytes that look like a start code. */
function guarded(string $payload): string
{
    $out = '';
    $zeros = 0;
    foreach (str_split($payload) as $byte) {
        if ($zeros >= 2 && ord($byte) <= 3) {
            $out .= "\3";
            $zeros = 0;
        }
        $out .= $byte;
        $zeros = $byte === "\0" ? $zeros + 1 : 0;
    }

    return $out;
}

/**
 * A sequence parameter set by chance, after the syntax of ITU-T H.264, 7.3.2.1.1, and the size of picture it stands for.
 *
 * @return array{string, array{int, int}}
 */
function chanceParameters(int $profile): array
{
    $bits = (new BitWriter)->bits($profile, 8)->bits(mt_rand(0, 3) === 0 ? 0 : mt_rand(0, 255), 8)
        ->bits([10, 31, 40, 51][mt_rand(0, 3)], 8);
    numberOf($bits, mt_rand(0, 31));
    $chroma = 1;
    $planes = 0;
    if (in_array($profile, [100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135], true)) {
        numberOf($bits, $chroma = mt_rand(0, 3));
        if ($chroma === 3) {
            $bits->bits($planes = mt_rand(0, 1), 1);
        }
        numberOf(numberOf($bits, mt_rand(0, 6)), mt_rand(0, 6))->bits(mt_rand(0, 1), 1);
        $bits->bits($scaled = mt_rand(0, 1), 1);
        for ($list = 0; $scaled === 1 && $list < ($chroma === 3 ? 12 : 8); $list++) {
            $bits->bits($there = mt_rand(0, 1), 1);
            $last = $next = 8;
            for ($index = 0; $there === 1 && $index < ($list < 6 ? 16 : 64); $index++) {
                if ($next !== 0) {
                    // Now and then the list ends early: the next scale becomes zero.
                    $delta = mt_rand(1, 20) === 1 ? ($last > 128 ? 256 - $last : -$last) : mt_rand(-20, 20);
                    numberOf($bits, $delta > 0 ? 2 * $delta - 1 : -2 * $delta);
                    $next = ($last + $delta + 256) % 256;
                }
                $last = $next === 0 ? $last : $next;
            }
        }
    }
    numberOf($bits, mt_rand(0, 12));
    numberOf($bits, $order = mt_rand(0, 2));
    if ($order === 0) {
        numberOf($bits, mt_rand(0, 12));
    } elseif ($order === 1) {
        numberOf(numberOf($bits->bits(mt_rand(0, 1), 1), mt_rand(0, 900)), mt_rand(0, 900));
        numberOf($bits, $cycle = mt_rand(0, 5));
        for (; $cycle > 0; $cycle--) {
            numberOf($bits, mt_rand(0, 40));
        }
    }
    numberOf($bits, mt_rand(0, 16))->bits(mt_rand(0, 1), 1);
    $columns = mt_rand(2, 300);
    $rows = mt_rand(2, 150);
    numberOf(numberOf($bits, $columns - 1), $rows - 1);
    $bits->bits($whole = mt_rand(0, 1), 1);
    $bits->bits(mt_rand(0, 1), $whole === 1 ? 1 : 2);
    $crop = mt_rand(0, 1) === 1 ? array_map(fn (): int => mt_rand(0, 3), range(1, 4)) : [0, 0, 0, 0];
    $bits->bits(array_sum($crop) > 0 ? 1 : 0, 1);
    foreach (array_sum($crop) > 0 ? $crop : [] as $edge) {
        numberOf($bits, $edge);
    }
    $bits->bits(0, 1)->bits(1, 1)->align();
    // Table 6-1 and equations 7-19 to 7-22
    [$across, $down] = $planes === 1 ? [1, 1] : [[1, 1], [2, 2], [2, 1], [1, 1]][$chroma];
    $fields = 2 - $whole;

    return ["\x67".guarded($bits->bytes()), [16 * $columns - $across * ($crop[0] + $crop[1]),
        16 * $rows * $fields - $down * $fields * ($crop[2] + $crop[3])]];
}

it('reads the size of pictures out of any parameter set', function (int $profile) {
    mt_srand($profile);
    for ($time = 0; $time < 150; $time++) {
        [$unit, $size] = chanceParameters($profile);
        expect(SequenceParameters::parse($unit)?->size())->toBe($size, bin2hex($unit));
    }
})->with([66, 77, 88, 100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135]);

it('takes no parameter set that was cut for one', function () {
    mt_srand(5);
    [$unit] = chanceParameters(100);
    foreach (range(0, strlen($unit) - 4) as $length) {
        $read = SequenceParameters::parse(substr($unit, 0, $length));
        expect($read === null || $read->size()[0] >= 0)->toBeTrue();
    }
    expect(SequenceParameters::parse(''))->toBeNull()->and(SequenceParameters::parse("\x67\x64"))->toBeNull();
});
