<?php

declare(strict_types=1);

use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Media\Findings\CodecNotDecodable;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A file in a codec that nobody else knows: samples of which every bit is turned. @param  list<list<float>>  $channels */
function turned(array $channels): string
{
    $data = '';
    foreach (array_keys($channels[0]) as $index) {
        foreach ($channels as $samples) {
            $data .= pack('v', (int) round($samples[$index] * 32768) & 0xFFFF);
        }
    }
    $count = count($channels);

    return Scratch::write('turned “é” 1.wav', 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 0x7A7A, $count, 48_000,
        96_000 * $count, 2 * $count, 16).'data'.pack('V', strlen($data)).($data ^ str_repeat("\xFF", strlen($data))));
}

/** Names the stand-in as the decoder. */
function standIn(string $way = 'well'): void
{
    $home = Scratch::folder();
    putenv("OCTAVOX_HOME=$home");
    file_put_contents("$home/decoders.json", json_encode(['form 0x7a7a' => sprintf('"%s" "%s" {path} {track} "%s"', PHP_BINARY,
        __DIR__.'/fixtures/outside.php', $way)]));
    OutsideDecoders::by("$home/decoders.json");
}

afterEach(function () {
    putenv('OCTAVOX_HOME');
    putenv(OutsideDecoders::VARIABLE);
});

it('says that a program can be named, and goes by it once one is', function () {
    $sounds = [Signal::steps(100_000, 1), Signal::steps(100_000, 2)];
    $path = turned($sounds);
    $kinds = fn (): array => array_map(fn (Finding $finding): string => $finding->kind::class, Reader::read($path)->findings);
    expect($kinds())->toContain(CodecNotDecodable::class);
    [$status, $said] = octavox('make', $path, '--into', Scratch::folder(), '--format', 'flac', '--json');
    expect($status)->toBe(1)->and($said['error']['message'])->toContain('name a program that decodes it in the settings');
    standIn();
    expect($kinds())->not->toContain(CodecNotDecodable::class)->and(Reader::read($path)->sound()[0]->sound->isOutside)->toBeTrue();
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $path, '--into', $into, '--format', 'flac', '--bits', '16', '--dither', 'off', '--json');
    expect($status)->toBe(0)->and($said['results'][0]['samples'])->toBe(100_000)->and($said['results'][0]['action'])->toBe('remade');
    $decoded = Signal::decodeFile($said['results'][0]['path']);
    foreach ($sounds as $channel => $samples) {
        $expected = array_map(fn (float $sample): int => (int) round($sample * 32768), $samples);
        expect(array_map(fn (float $sample): int => (int) round($sample * 32768), $decoded[$channel]) === $expected)->toBeTrue();
    }
    // A cut begins where it is asked, and the analysis hears what the results hold.
    [, $cut] = octavox('make', $path, '--into', $into, '--format', 'flac', '--bits', '16', '--dither', 'off', '--pieces',
        '30000#-50000#,10000#-20000#', '--name', 'cut', '--json');
    $part = Signal::decodeFile($cut['results'][0]['path'])[0];
    expect(count($part))->toBe(30_000)->and((int) round($part[0] * 32768))->toBe((int) round($sounds[0][30_000] * 32768))
        ->and((int) round($part[20_000] * 32768))->toBe((int) round($sounds[0][10_000] * 32768));
    [$status, $read] = octavox('read', $path, '--listen', '--json');
    expect($status)->toBe(0)->and($read['sources'][0]['analysis'][0]['samples'] ?? 100_000)->toBe(100_000);
});

it('ends a program that misbehaves, and says what it did', function (string $way, string $says) {
    $path = turned([Signal::steps(400_000, 3)]);
    standIn($way);
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $path, '--into', $into, '--format', 'wav', '--json');
    expect($status)->toBe(1)->and($said['results'][0]['error']['message'])->toContain($says)
        ->and($said['results'][0]['error']['code'])->toBe('outside-decoder')->and(glob($into.'/*'))->toBe([]);
    // Nothing of it runs on.
    exec('pgrep -f "fixtures/outside.php .*'.preg_quote(basename($path), '"').'"', $running);
    expect($running)->toBe([]);
})->with([
    'hangs' => ['hangs', 'went silent and was ended'], 'floods' => ['floods', 'more than the 8.33 s that there are'],
    'rate' => ['lies about its rate', '96,000 Hz instead of 48,000'], 'channels' => ['lies about its channels', '2 channels instead of 1'],
    'short' => ['stops too soon', '4.17 s instead of 8.33'], 'dies' => ['dies',
        'ended with the number 3 and said: the licence has run out'],
    'nothing' => ['writes no sound', 'no WAV with plain samples'], 'signal' => ['is killed', 'ended with'],
]);

it('parts the words of a command as a shell would, without one', function (string $command, ?array $words) {
    expect(OutsideDecoders::words($command))->toBe($words);
})->with([
    ['/bin/decode {path} {track}', ['/bin/decode', '{path}', '{track}']],
    ['"/opt/my tools/decode" --in={path} \'a b\' -', ['/opt/my tools/decode', '--in={path}', 'a b', '-']],
    ['/bin/decode', null], ['{path}', null], ['', null], ['/bin/x {path}; rm -r /', ['/bin/x', '{path};', 'rm', '-r', '/']],
]);
