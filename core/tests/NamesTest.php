<?php

declare(strict_types=1);

use Octavox\Core\Name\Direction;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\NumberedName;
use Octavox\Core\Name\Signs;

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

it('fills patterns; fields without a value vanish, with what stands in brackets around them', function (string $pattern, string $name) {
    $values = ['stem' => 'Tour [day 1]', 'title' => 'The lift / opens', 'artist' => '', 'layout' => 'stereo', 'track' => '3/12', 'disc' => '1',
        'rate' => '48000', 'number' => '3', 'label' => 'lav', 'piece' => '1', 'tree' => 'Canal/../day 1', 'folder' => 'day 1',
        'tag:isrc' => 'XW1'];
    expect((new NamePattern($pattern))->fill($values))->toBe($name);
})->with([
    ['{stem}', 'Tour [day 1]'], ['{number} {title} {label}', '3 The lift - opens lav'], ['{artist}', 'untitled'], ['', 'untitled'],
    ['{title} {artist}', 'The lift - opens'], ['no field', 'no field'], ['{title}{piece}-{rate}-{layout}',
        'The lift - opens1-48000-stereo'],
    ['{artist|title}', 'The lift - opens'], ['{artist|"Nobody"}', 'Nobody'], ['{artist|album|"Nobody / none"}', 'Nobody - none'],
    ['{track:2} {title}', '03 The lift - opens'], ['{disc}{track:3}', '1003'], ['[{artist} - ]{title}', 'The lift - opens'],
    ['[{track:2} - ]{title}', '03 - The lift - opens'], ['[live] {title}', '[live] The lift - opens'], ['{tag:ISRC}', 'XW1'],
    ['{tag:mood|stem}', 'Tour [day 1]'], ['{artist|"Nobody"}/{title}', 'Nobody/The lift - opens'], ['../{stem}', 'Tour [day 1]'],
    ['/{stem}', 'Tour [day 1]'], ['a//b/./{stem}', 'a/b/Tour [day 1]'], ['{tree}/{stem}', 'Canal/day 1/Tour [day 1]'],
    ['{artist}/{stem}', 'Tour [day 1]'], ['con/{folder}/aux', '_con/day 1/_aux'],
]);

it('tells what stands in braces and is no field', function (string $pattern, array $unknown) {
    expect((new NamePattern($pattern))->unknown())->toBe($unknown);
})->with([
    ['{stem} {title|"x"}', []], ['{colour}', ['{colour}']], ['{STEM}', ['{STEM}']], ['{stem', ['{stem']], ['{}', ['{}']],
    ['{title|colour}', ['{colour}']], ['{tag:anything at all}', []], ['{stem:xx}', ['{stem:xx}']], ['{track:2}', []],
]);

it('keeps, removes or spells out emoji and control characters', function (string $text, string $removed, string $spelled) {
    expect(Signs::Keep->applied($text))->toBe($text)->and(Signs::Remove->applied($text))->toBe($removed)
        ->and(Signs::Spell->applied($text))->toBe($spelled)->and(Signs::areIn($removed))->toBeFalse()->and(Signs::areIn($spelled))
        ->toBeFalse();
})->with([
    ['Lift 🚤 day', 'Lift day', 'Lift speedboat day'], ["a\x07b", 'ab', 'a U+0007 b'], ['© 1994 ™ 3 # ↔', '© 1994 ™ 3 # ↔',
        '© 1994 ™ 3 # ↔'],
    ["\u{1F469}\u{1F3FD}\u{200D}\u{1F527}", '', 'woman emoji modifier fitzpatrick type-4 wrench'], ['運河 é', '運河 é', '運河 é'],
    ["heart \u{2764}\u{FE0F}", 'heart', 'heart heavy black heart'],
]);

it('makes of any pattern and any values a path that is legal everywhere and stays in its place', function (int $seed) {
    mt_srand($seed);
    $pieces = ['{stem}', '{title}', '{artist|"x"}', '[{album} ]', '/', '..', '.', ' ', 'con', "\u{202E}", '🚤', "\n", ':', '*', '{tree}',
        'é', "e\u{301}",
        '{', '}', '[', ']', '\\', "\xFF", str_repeat('🚤', 90), '{track:3}', '|', '"', 'NUL.', '~'];
    $one = fn (): string => implode('', array_map(fn (): string => $pieces[mt_rand(0, count($pieces) - 1)], range(1, mt_rand(1, 9))));
    foreach (range(1, 300) as $time) {
        $values = ['stem' => $one(), 'title' => $one(), 'album' => mt_rand(0, 1) === 0 ? '' : $one(), 'tree' => $one(), 'track' => (string) mt_rand()];
        $pattern = new NamePattern($one(), Signs::cases()[mt_rand(0, 2)]);
        $path = $pattern->path($values);
        expect($pattern->path($values))->toBe($path);
        foreach ($path as $part) {
            expect($part)->not->toBeIn(['', '.', '..'])->not->toMatch('/[\/\\\\:*?"<>|\x00-\x1F\x7F]|[. ]$|^[ .]/')
                ->not->toMatch('/^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/i')->and(mb_check_encoding($part, 'UTF-8'))->toBeTrue()
                ->and(strlen($part))->toBeLessThanOrEqual(201)->and(Normalizer::isNormalized($part))->toBeTrue();
        }
    }
})->with(range(1, 8));

it('knows which fields a pattern has', function () {
    $pattern = new NamePattern('{stem} {label}');
    expect($pattern->has('label'))->toBeTrue()->and($pattern->has('piece'))->toBeFalse()->and((string) $pattern)->toBe('{stem} {label}')
        ->and((string) new NamePattern)->toBe('{stem}');
});

it('numbers names before their extension', function (string $name, int $number, string $numbered) {
    expect(NumberedName::write($name, $number))->toBe($numbered);
})->with([
    ['lift.wav', 0, 'lift.wav'], ['lift.wav', 1, 'lift.wav'], ['lift.wav', 2, 'lift 2.wav'], ['lift', 12, 'lift 12'],
    ['two.dots.m4a', 3, 'two.dots 3.m4a'], ['lift 2.wav', 2, 'lift 2 2.wav'],
]);

it('leaves control characters out of names, those of one byte and those of two', function () {
    expect(LegalName::from("a\u{01}b\u{7F}c\u{85}d\u{9F}e\u{A0}f.wav"))->toBe("abcde\u{A0}f.wav");
});
