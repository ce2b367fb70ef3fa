<?php

declare(strict_types=1);

use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

require_once __DIR__.'/fixtures/damage.php';
require_once __DIR__.'/fixtures/samples.php';

/** How many damaged files lie beside a good one. */
const BESIDE = 8;

it('makes and plans the good file beside damaged ones, always, and nothing takes it by surprise', function (string $name) {
    $path = sample($name);
    $whole = (string) file_get_contents($path);
    $folder = Scratch::folder();
    $paths = [];
    $seed = crc32($name) % 1_000_000;
    for ($number = 0; $number < BESIDE; $number++) {
        $paths[] = "$folder/$number.".pathinfo($path, PATHINFO_EXTENSION);
        file_put_contents($paths[$number], mutant($whole, $seed + $number));
    }
    $good = Scratch::write('good.wav', Signal::wave([Signal::sweep(4800, 0.4, 0.00001)], SampleFormat::signed(16)));
    array_splice($paths, 4, 0, [$good]);
    foreach ([['--format', 'wavpack', '--plan'], ['--format', 'mp3', '--level', 'lufs:-16']] as $options) {
        $command = ['timeout', '-s', 'KILL', '120', dirname(__DIR__, 2).'/octavox', 'make', ...$paths, '--into', "$folder/out", '--json',
            ...$options];
        $said = json_decode((string) shell_exec(implode(' ', array_map(escapeshellarg(...), $command)).' 2>/dev/null'), true);
        $results = array_column($said['results'] ?? [], null, 'source');
        expect($results[$good]['state'] ?? 'nothing')->toBe(in_array('--plan', $options, true) ? 'planned' : 'done',
            "$name, seed $seed: ".implode(' ', $options));
        foreach ($said['results'] as $result) {
            expect($result['error']['code'] ?? '')->not->toBe('internal',
                "$name, seed $seed: $result[source] ".($result['error']['message'] ?? ''));
        }
    }
})->with(SAMPLES)->group('slow');
