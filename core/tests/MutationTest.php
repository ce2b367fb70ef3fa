<?php

declare(strict_types=1);

require_once __DIR__.'/fixtures/samples.php';

/** How often each sample is damaged. */
const DAMAGES = 100;

it('gives sound or one sentence for every damaged file, never a warning, a hang or more memory than there is', function (string $name) {
    $path = sample($name);
    $first = 1;
    $died = 0;
    $came = ['sound' => 0, 'failure' => 0];
    while ($first <= DAMAGES) {
        $output = [];
        exec(sprintf('timeout -s KILL 120 %s -d ffi.enable=1 -d memory_limit=256M -d opcache.enable_cli=1 %s %s %d %d 2>&1',
            escapeshellarg(PHP_BINARY), escapeshellarg(__DIR__.'/fixtures/mutate.php'), escapeshellarg($path), $first, DAMAGES),
            $output, $status);
        foreach ($output as $line) {
            if (preg_match('/^(\d+) (.*)$/', $line, $match) === 1) {
                expect($match[2])->not->toStartWith('fault', "$name, damage $match[1]: $match[2]");
                $came[$match[2]] = ($came[$match[2]] ?? 0) + 1;
                $first = (int) $match[1] + 1;
            } elseif (preg_match('/^peak (\d+)$/', $line, $match) === 1) {
                expect((int) $match[1])->toBeLessThan(256 << 20);
            }
        }
        if ($status !== 0) {
            // A codec library that dies takes its child process with it and nothing else; it must be rare.
            expect($status)->toBeGreaterThanOrEqual(128, "$name, damage $first: ".implode(' ', array_slice($output, -3)));
            $died++;
            $first++;
        }
    }
    expect($died)->toBeLessThanOrEqual(2, $name)
        ->and($came['failure'] + $came['sound'])->toBeGreaterThan(DAMAGES - 5);
})->with(SAMPLES);
