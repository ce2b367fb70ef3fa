<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Fingerprint;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/**
 * A piece of made-up music of twenty seconds: a tune of plucked tones over a slow bass, the same for the same number. @return list<float>
 */
function piece(int $number): array
{
    static $pieces = [];
    if (isset($pieces[$number])) {
        return $pieces[$number];
    }
    mt_srand($number);
    $samples = array_fill(0, 20 * 16_000, 0.0);
    $note = 0;
    for ($start = 0; $start < count($samples); $start += mt_rand(1800, 7000)) {
        $note = max(-12, min(18, $note + mt_rand(-5, 5)));
        foreach ([[220 * 2 ** ($note / 12), 0.18], [110 * 2 ** (($note - mt_rand(0, 12)) / 12), 0.12]] as [$pitch, $level]) {
            $end = min(9000, count($samples) - $start);
            for ($index = 0; $index < $end; $index++) {
                $turn = 2 * M_PI * $pitch * $index / 16_000;
                $samples[$start + $index] += $level * exp(-$index / 3000) * (sin($turn) + 0.5 * sin(2 * $turn) + 0.3 * sin(3 * $turn) + 0.2 * sin(5 * $turn));
            }
        }
    }

    return $pieces[$number] = $samples;
}

/** @return list<int> */
function fingerprintOf(string $path): array
{
    $source = Opener::open($path);

    return Fingerprint::compute($source, $source->sound()[0]);
}

it('knows sounds again whatever was done to them, and takes none for another', function () {
    $into = Scratch::folder();
    $numbers = range(1, 6);
    $whole = $paths = [];
    foreach ($numbers as $number) {
        $samples = piece($number);
        $paths[$number] = Scratch::write("piece$number.wav", Signal::wave([$samples], SampleFormat::signed(16), 16_000));
        $whole[$number] = fingerprintOf($paths[$number]);
    }
    $make = function (int $number, string ...$options) use ($paths, $into): string {
        [$status, $said] = octavox('make', $paths[$number], '--into', $into, '--json', ...$options);
        expect($status)->toBe(0);

        return $said['results'][0]['path'];
    };
    $noisy = function (int $number): string {
        mt_srand(900 + $number);
        // Noise 15 dB below the sound.
        $samples = piece($number);
        $level = sqrt(array_sum(array_map(fn (float $one): float => $one ** 2, $samples)) / count($samples)) * 10 ** (-15 / 20) * sqrt(3);

        return Scratch::write('noisy.wav', Signal::wave([array_map(fn (float $one): float => $one + $level * (2 * mt_rand() / mt_getrandmax() - 1), $samples)],
            SampleFormat::signed(16), 16_000));
    };
    $treatments = [
        're-encoded, MP3 of 32 kbit/s' => fn (int $number): string => $make($number, '--format', 'mp3', '--kbps', '32', '--rate', '16000'),
        're-encoded, Opus of 24 kbit/s' => fn (int $number): string => $make($number, '--format', 'opus', '--kbps', '24'),
        'cut at 7.013 s' => fn (int $number): string => $make($number, '--format', 'wav', '--from', '7.013', '--until', '16.5'),
        'quieter by 24 dB' => fn (int $number): string => $make($number, '--format', 'wav', '--level', 'gain:-24'),
        'with noise 15 dB below' => $noisy,
        'at another rate, cut and quieter, as AAC' => fn (int $number): string => $make($number, '--format', 'aac', '--rate', '44100',
            '--kbps', '64', '--from', '3.333',
            '--level', 'gain:-9'),
    ];
    foreach ($treatments as $name => $treat) {
        $hits = $false = 0;
        foreach ($numbers as $number) {
            $changed = fingerprintOf($treat($number));
            foreach ($whole as $other => $known) {
                $isSame = Fingerprint::difference($known, $changed) < 0.35;
                $hits += $isSame && $other === $number ? 1 : 0;
                $false += $isSame && $other !== $number ? 1 : 0;
            }
        }
        fwrite(STDERR, sprintf("  %s: %d of %d known again, %d of %d taken for another\n", $name, $hits, count($numbers), $false,
            (count($numbers) - 1) * count($numbers)));
        expect($hits)->toBeGreaterThanOrEqual(count($numbers) - 1, $name)->and($false)->toBe(0, $name);
    }
});

it('has no fingerprint of what is too short, and none of silence is like another', function () {
    $short = Scratch::write('short.wav', Signal::wave([array_fill(0, 2000, 0.1)], SampleFormat::signed(16), 16_000));
    $silent = Scratch::write('silent.wav', Signal::wave([array_fill(0, 160_000, 0.0)], SampleFormat::signed(16), 16_000));
    expect(fingerprintOf($short))->toBe([])->and(Fingerprint::difference([], []))->toBe(1.0)
        ->and(Fingerprint::difference(fingerprintOf($silent), fingerprintOf($silent)))->toBe(1.0);
});
