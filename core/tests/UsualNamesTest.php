<?php

declare(strict_types=1);

use Octavox\Core\Container\Outputs;
use Octavox\Core\Failure;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tests\Support\Scratch;

it('knows formats however people write them', function (string $written, string $name) {
    expect(Outputs::spelled($written))->toBe($name);
})->with([
    ['ogg', 'vorbis'], ['oga', 'vorbis'], ['m4a', 'aac'], ['aif', 'aiff'], ['WAV', 'wav'], ['.flac', 'flac'], [' .MP3 ', 'mp3'], ['aac',
        'aac'], ['m4r', 'm4r'], ['wv', 'wavpack'],
    ['m4v', 'mp4'], ['xyz', 'xyz'], ['', ''],
]);

it('says of what holds no sound what it is', function (string $bytes, string $name, string $says) {
    $path = Scratch::write($name, $bytes);
    try {
        $findings = Reader::read($path)->findings;
        $said = implode(' ', array_map(fn ($one): string => $one->says(), $findings));
    } catch (Failure $failure) {
        $said = $failure->getMessage();
    }
    expect($said)->toContain($says);
})->with([
    'an empty WAV' => ['RIFF'.pack('V', 36).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, 48_000, 192_000, 4, 16).'data'.pack('V', 0), 'e.wav',
        'holds no sound at all'],
    'an AIFF without its sound' => ['FORM'.pack('N', 30).'AIFFCOMM'.pack('NnNn', 18, 1, 100, 8).hex2bin('400dac44000000000000'), 'e.aif',
        'no sound in it'],
    'an empty AIFF' => ['FORM'.pack('N', 46).'AIFFCOMM'.pack('NnNn', 18, 1, 0, 8).hex2bin('400dac44000000000000').'SSND'.pack('N3', 8, 0,
        0), 'e2.aif', 'no sound'],
    'MPEG video alone' => ["\0\0\1\xB3\x14\0\xC8\x11\xFF\xFF\xE0\xA4\0\0\1\xB8".str_repeat("\0", 40), 'v.mpg', 'picture of a video alone'],
    'H.264 alone' => ["\0\0\0\1\x67\x42\xC0\x1E".str_repeat("\1", 40), 'v.h264', 'picture of a video alone'],
    'a sheet of pauses' => ["FILE \"a.wav\" WAVE\n  TRACK 01 AUDIO\n    INDEX 00 00:00:00\n", 's.cue', 'INDEX 00'],
    'Musepack behind a tag' => ["ID3\3\0\0\0\0\0\x14TIT2".pack('N', 5)."\0\0\0Lift\0\0\0\0\0".'MP+'."\x07".pack('V2', 10,
        0).str_repeat("\0", 40), 'm.mpc', 'Musepack'],
]);
