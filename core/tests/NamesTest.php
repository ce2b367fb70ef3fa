<?php

declare(strict_types=1);

use Octavox\Core\Name\Direction;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\NumberedName;

it('makes of any text a name that every common system accepts', function (string $wanted, string $name) {
    expect(LegalName::from($wanted))->toBe($name);
})->with([
    ['lift', 'lift'], ['The boat lift, 1', 'The boat lift, 1'], ['a/b\\c:d*e|f', 'a-b-c-d-e-f'], ['what?"<>', 'what'],
    ["tab\tline\n", 'tabline'],
    ['.hidden', 'hidden'], ['...', 'untitled'], ['', 'untitled'], ['   ', 'untitled'], ['ends. . ', 'ends'], ['con', '_con'],
    ['NUL.wav', '_NUL.wav'],
    ['com7', '_com7'], ['common', 'common'], ['lpt0.x', '_lpt0.x'], ['canàl', 'canàl'], ['運河', '運河'], ["bad\xFFbyte", 'badbyte'],
    ["gpj\u{202E}vaw.exe", 'gpjvaw.exe'], ['../../etc/passwd', '-..-etc-passwd'], ["zero\0byte", 'zerobyte'],
]);

it('keeps names within two hundred bytes and never cuts a letter in two', function (string $letter) {
    $name = LegalName::from(str_repeat($letter, 300));
    expect(strlen($name))->toBeLessThanOrEqual(200)->toBeGreaterThan(196)->and(mb_check_encoding($name, 'UTF-8'))->toBeTrue()
        ->and(rtrim($name, $letter))->toBe('');
})->with(['a', 'é', '運', '🚤']);

it('keeps the extension of a whole file name, however long the name is', function (string $wanted, string $name) {
    expect(LegalName::file($wanted))->toBe($name);
})->with([
    ['lift.wav', 'lift.wav'], ['a/b.mp3', 'a-b.mp3'], [str_repeat('x', 400).'.flac', str_repeat('x', 195).'.flac'],
    ['no extension', 'no extension'],
    ['.wav', 'wav'], ['lift.w?v', 'lift.wv'], ['two.dots.m4a', 'two.dots.m4a'], ['aux.mp3', '_aux.mp3'],
    ['long.extensionofmany', 'long.extensionofmany'],
]);

it('shortens only what stands before the extension', function (string $name, int $most, string $short) {
    expect(LegalName::shortened($name, $most))->toBe($short)->and(strlen($short))->toBeLessThanOrEqual($most);
})->with([
    ['lift.wav', 100, 'lift.wav'], ['a long name.wav', 10, 'a long.wav'], ['ééééé.mp3', 8, 'éé.mp3'], ['nothing to keep', 7, 'nothing'],
]);

it('shows and takes away what turns the direction of writing', function () {
    $name = "Lift\u{200F} \u{2066}keeper\u{2069}";
    expect(Direction::cleaned($name))->toBe('Lift keeper')->and(Direction::shown($name))->toBe('Lift[U+200F] [U+2066]keeper[U+2069]')
        ->and(Direction::shown('plain'))->toBe('plain');
});

it('fills patterns; empty fields vanish, unknown ones stay', function (string $pattern, string $name) {
    $values = ['stem' => 'Tour', 'track' => '2', 'title' => 'The lift / opens', 'artist' => '', 'layout' => 'stereo',
        'rate' => '48000', 'number' => '3',
        'label' => 'lav', 'piece' => '1'];
    expect((new NamePattern($pattern))->fill($values))->toBe($name);
})->with([
    ['{stem}', 'Tour'], ['{number} {stem} {label}', '3 Tour lav'], ['{title}', 'The lift - opens'], ['{artist}', 'untitled'],
    ['{stem} {artist}', 'Tour'], ['{stem} {colour}', 'Tour {colour}'], ['{{stem}}', '{Tour}'], ['no field', 'no field'], ['', 'untitled'],
    ['{stem}{piece}-{rate}-{layout}-{track}', 'Tour1-48000-stereo-2'], ['{STEM}', '{STEM}'], ['{stem', '{stem'], ['../{stem}', '-Tour'],
]);

it('knows which fields a pattern has', function () {
    $pattern = new NamePattern('{stem} {label}');
    expect($pattern->has('label'))->toBeTrue()->and($pattern->has('piece'))->toBeFalse()->and((string) $pattern)->toBe('{stem} {label}')
        ->and((string) new NamePattern)->toBe('{stem}');
});

it('numbers names before their extension', function (string $name, int $number, string $numbered) {
    expect(NumberedName::of($name, $number))->toBe($numbered);
})->with([
    ['lift.wav', 0, 'lift.wav'], ['lift.wav', 1, 'lift.wav'], ['lift.wav', 2, 'lift 2.wav'], ['lift', 12, 'lift 12'],
    ['two.dots.m4a', 3, 'two.dots 3.m4a'], ['lift 2.wav', 2, 'lift 2 2.wav'],
]);
