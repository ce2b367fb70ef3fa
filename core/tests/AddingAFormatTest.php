<?php

declare(strict_types=1);

use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A copy of the core and the commands, with what pages of `docs` add, taken from the pages themselves. */
function copyWith(string ...$pages): string
{
    $root = dirname(__DIR__, 2);
    $copy = Scratch::folder();
    exec(sprintf('cp -r %s/cli %s/ && mkdir %2$s/core && cp -r %1$s/core/src %1$s/core/bin %2$s/core/', escapeshellarg($root),
        escapeshellarg($copy)));
    foreach ($pages as $name) {
        $page = (string) file_get_contents("$root/docs/$name.md");
        preg_match_all('/^`(core\/src\/\S+\.php)`\n\n```php\n(.*?)^```$/ms', $page, $files, PREG_SET_ORDER);
        foreach ($files as [, $path, $code]) {
            is_dir(dirname("$copy/$path")) || mkdir(dirname("$copy/$path"));
            file_put_contents("$copy/$path", $code);
        }
        preg_match_all('/^One line in `(\S+)`[^\n]*\n\n```php\n(.+?)\n```$/m', $page, $lines, PREG_SET_ORDER);
        foreach ($lines as [, $path, $line]) {
            $registry = (string) file_get_contents("$copy/$path");
            $begins = '/return \[\n|return match \(\$codec\) \{\n|enum \w+: string\n\{\n/';
            file_put_contents("$copy/$path", preg_replace($begins, "$0            $line\n", $registry, 1, $done));
            expect($done)->toBe(1);
        }
        expect($files)->not->toBeEmpty()->and($lines)->not->toBeEmpty();
    }

    return $copy;
}

/** @return array{int, array<string, mixed>} */
function commandOf(string $root, string ...$words): array
{
    exec(implode(' ',
        array_map(escapeshellarg(...), [PHP_BINARY, '-d', 'ffi.enable=1', "$root/cli/octavox.php", ...$words, '--json'])), $said, $status);

    return [$status, (array) json_decode(implode("\n", $said), true)];
}

it('adds a format with one folder and a line in each registry, and nothing else', function () {
    $copy = copyWith('adding-a-format');
    $folder = Scratch::folder();
    $samples = [Signal::steps(5000, 1), Signal::steps(5000, 2)];
    $wave = Scratch::write('steps.wav', Signal::wave($samples, SampleFormat::signed(16)));
    [$status, $made] = commandOf($copy, 'make', $wave, '--into', $folder, '--format', 'tally');
    $bytes = (string) file_get_contents("$folder/steps.tally");
    expect($status)->toBe(0)->and($made['results'][0]['receipt']['identical'])->toBeTrue()
        ->and($made['results'][0]['predicted_bytes'])->toBe(strlen($bytes))->and(substr($bytes, 0, 16))
        ->toBe('TLLY'.pack('N3', 48_000, 2, 5000))
        // The samples of the WAV, each with its bytes the other way round.
        ->and(pack('v*', ...unpack('n*', substr($bytes, 16))))->toBe(substr((string) file_get_contents($wave), 44));

    [$status, $read] = commandOf($copy, 'read', "$folder/steps.tally");
    expect($status)->toBe(0)->and($read['sources'][0]['container'])->toBe('tally')
        ->and($read['sources'][0]['tracks'][0]['samples'])->toBe(5000);
    [$status, $back] = commandOf($copy, 'make', "$folder/steps.tally", '--into', $folder, '--format', 'wav', '--pieces', '1000#-3000#');
    expect($status)->toBe(0)->and(substr((string) file_get_contents($back['results'][0]['path']), -8000))
        ->toBe(substr((string) file_get_contents($wave), 44 + 4000, 8000));
});

it('offers what the format says it has, and names it where something else is asked', function () {
    $copy = copyWith('adding-a-format');
    $wave = Scratch::write('steps.wav', Signal::wave([Signal::steps(500, 1)], SampleFormat::signed(16)));
    [$status, $refused] = commandOf($copy, 'make', $wave, '--into', Scratch::folder(), '--format', 'tally', '--bits', '24');
    expect($status)->toBe(2)->and(json_encode($refused))->toContain('not-offered')->toContain('16');
    [$status, $broken] = commandOf($copy, 'read', Scratch::write('lying.tally', 'TLLY'.pack('N3', 48_000, 90_000, 1)));
    expect($status)->toBe(1)->and(json_encode($broken))->toContain('90000 channels');
});

it('adds a codec with its name, one folder and one line, and nothing else', function () {
    $copy = copyWith('adding-a-format', 'adding-a-codec');
    $folder = Scratch::folder();
    $wave = Scratch::write('steps.wav', Signal::wave([Signal::steps(70_000, 1), Signal::steps(70_000, 2)], SampleFormat::signed(16)));
    [$status, $made] = commandOf($copy, 'make', $wave, '--into', $folder, '--format', 'veiled-tally');
    $bytes = (string) file_get_contents("$folder/steps.tally");
    $samples = substr((string) file_get_contents($wave), 44);
    expect($status)->toBe(0)->and($made['results'][0]['receipt']['identical'])->toBeTrue()
        ->and(substr($bytes, 0, 16))->toBe('TLLV'.pack('N3', 48_000, 2, 70_000))
        ->and(substr($bytes, 16) ^ str_repeat('U', strlen($samples)))->toBe($samples);

    [$status, $read] = commandOf($copy, 'read', "$folder/steps.tally");
    expect($status)->toBe(0)->and($read['sources'][0]['tracks'][0]['codec'])->toBe('veil')
        ->and($read['sources'][0]['tracks'][0]['format'])->toBe('16-bit Veil');
    [$status, $back] = commandOf($copy, 'make', "$folder/steps.tally", '--into', $folder, '--format', 'wav', '--pieces', '40001#-60001#');
    expect($status)->toBe(0)
        ->and(substr((string) file_get_contents($back['results'][0]['path']), -80_000))->toBe(substr($samples, 4 * 40_001, 80_000));
});
