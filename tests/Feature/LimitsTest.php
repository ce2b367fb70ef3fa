<?php

declare(strict_types=1);

use Octavox\Bench\Limits;

require_once dirname(__DIR__, 2).'/bench/Limits.php';

it('fails what is over its figure by a quarter three times in a row', function (array $ratios, string $says, bool $isKept) {
    $limits = new Limits(['the start' => 2.0]);
    expect($limits->judge('the start', function () use (&$ratios): float {
        return array_shift($ratios);
    }))->toBe($says)->and($limits->areKept())->toBe($isKept);
})->with([[[2.5], '2.50 (kept: 2.00)', true], [[2.6, 3.0, 2.4], '2.60, 3.00, 2.40 (kept: 2.00)', true],
    [[2.6, 2.6, 2.51], '2.60, 2.60, 2.51 (kept: 2.00) TOO SLOW', false]]);

it('keeps a figure of all that is measured', function () {
    $root = dirname(__DIR__, 2);
    preg_match_all("/judge\\(['\"]([^'\"]+)['\"]/", (string) file_get_contents("$root/bench/parts/quick.php"), $judged);
    $kept = json_decode((string) file_get_contents("$root/bench/limits.json"), true);
    $pairs = array_map(fn (string $pair): string => "$pair, against the bare library calls", ['wav-flac', 'flac-wav', 'mp3-wav',
        'wav-opus']);
    expect(array_keys($kept))->toBe([...$pairs, ...array_slice($judged[1], 1)]);
});
