<?php

declare(strict_types=1);

use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array{int, mixed, string} exit status, decoded standard output, standard error */
function octavox(string ...$words): array
{
    $process = proc_open([dirname(__DIR__, 2).'/octavox', ...$words], [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    $out = stream_get_contents($pipes[1]);
    $error = stream_get_contents($pipes[2]);

    return [proc_close($process), json_decode($out, true) ?? $out, $error];
}

it('reads files and whole folders', function () {
    $folder = Scratch::folder();
    file_put_contents("$folder/a.mp4", Signal::movie([Signal::pictureTrack(26), Signal::aacTrack([Signal::sweep(48_000)])]));
    file_put_contents("$folder/b.wav", Signal::wave([Signal::steps(100, 1)], PcmForm::signed(16)));
    [$status, $said] = octavox('read', $folder, '--json');
    expect($status)->toBe(0)->and(array_column($said['sources'], 'container'))->toBe(['mp4', 'wav'])
        ->and($said['sources'][0]['tracks'][1])->toMatchArray(['number' => 2, 'kind' => 'sound', 'codec' => 'aac', 'rate' => 48000, 'channels' => 1, 'layout' => 'mono', 'language' => 'eng', 'samples' => 48000, 'starts' => 0])
        ->and(octavox('read', "$folder/a.mp4")[1])->toContain('AAC-LC, mono, 48,000 Hz');
});

it('plans, makes and compares', function () {
    $folder = Scratch::folder();
    $a = Scratch::write('a.mp4', Signal::movie([Signal::aacTrack([Signal::sweep(48_000)])]));
    [$planned, $plan] = octavox('make', $a, '--into', $folder, '--format', 'wav', '--plan', '--json');
    [$made, $result] = octavox('make', $a, '--into', $folder, '--format', 'wav', '--json');
    [$again] = octavox('make', $a, '--into', $folder, '--format', 'mp3', '--kbps', '320', '--name', '{stem} for radio');
    [$compared, $comparison] = octavox('compare', "$folder/a.wav", "$folder/a for radio.mp3", '--json');
    expect([$planned, $made, $again, $compared])->toBe([0, 0, 0, 0])
        ->and($plan['deliveries'][0]['predicted_bytes'])->toBe($result['deliveries'][0]['bytes'])
        ->and($result['deliveries'][0])->toMatchArray(['state' => 'done', 'action' => 'remade', 'container' => 'wav', 'samples' => 48_000, 'error' => null])
        ->and($result['deliveries'][0]['receipt']['checksum'])->toBe('xxh128:'.hash_file('xxh128', "$folder/a.wav"))
        ->and($comparison)->toMatchArray(['same_length' => true, 'samples' => [48_000, 48_000], 'offset' => 0, 'identical' => false])
        ->and($comparison['difference_db'])->toBeLessThan(-40.0);
});

it('tells failures as JSON with exit status 1 and wrong usage with 2', function () {
    $text = Scratch::write('notes.mp4', 'only text');
    $good = Scratch::write('good.wav', Signal::wave([Signal::steps(100, 1)], PcmForm::signed(16)));
    [$status, $said] = octavox('read', $text, '--json');
    [$mixed, $both] = octavox('make', $text, $good, '--into', Scratch::folder(), '--format', 'mp3', '--json');
    [$alone, $one] = octavox('make', $text, '--into', Scratch::folder(), '--format', 'mp3', '--json');
    expect($status)->toBe(1)->and($said['error'])->toMatchArray(['code' => 'unknown-format', 'path' => $text])->and($said['error']['message'])->toContain('This is text')
        ->and($mixed)->toBe(1)->and(array_column($both['deliveries'], 'state'))->toEqualCanonicalizing(['failed', 'done'])
        ->and([$alone, $one['error']['code']])->toBe([1, 'unknown-format'])
        ->and(octavox('make', $good, '--into', '/tmp', '--format', 'xyz')[0])->toBe(2)
        ->and(octavox('make', $good, '--format', 'wav')[0])->toBe(2)
        ->and(octavox('read', '--sideways', $good)[0])->toBe(2)
        ->and(octavox('sing')[0])->toBe(2)
        ->and(octavox()[1])->toContain('./octavox compare A B');
});
