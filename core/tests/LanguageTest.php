<?php

declare(strict_types=1);

use Octavox\Core\Container\Matroska\MatroskaTrack;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\TrackSelection;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

it('knows a language by the letters that any container has for it', function (string $letters, ?string $wanted) {
    expect(LanguageCode::letters($letters))->toBe($wanted);
})->with([['eng', 'eng'], ['en', 'eng'], ['en-GB', 'eng'], ['ENG', 'eng'], ['ger', 'deu'], ['wel', 'cym'], ['cy', 'cym'], ['fre', 'fra'],
    ['xho', 'xho'], ['und', null], ["\0\0\0", null], ['english', null], ['', null]]);

it('calls languages by their names and takes both from who asks', function () {
    expect(LanguageCode::name('cym'))->toBe('Welsh')->and(LanguageCode::name('wel'))->toBe('Welsh')
        ->and(LanguageCode::name('xho'))->toBe('xho')
        ->and(LanguageCode::said('welsh'))->toBe('cym')->and(LanguageCode::said(' German '))->toBe('deu')
        ->and(LanguageCode::said('norwegian bokmål'))->toBe('nob')->and(LanguageCode::said('ger'))->toBe('deu')
        ->and(LanguageCode::said('somewhat'))->toBeNull();
});

it('writes into Matroska the letters that RFC 9559 asks for', function () {
    $entry = fn (?string $language): string => MatroskaTrack::sound(AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::mono()), 0,
        $language)->entry(1);
    expect($entry('cym'))->toContain("\x22\xB5\x9C\x83wel")->and($entry('eng'))->toContain("\x22\xB5\x9C\x83eng")->and($entry(null))
        ->toContain("\x22\xB5\x9C\x83und");
});

it('finds the tracks that are meant by a number, letters or a name, and says which there are', function () {
    $sound = [Signal::sweep(4800)];
    $path = Scratch::write('three.mp4',
        Signal::movie([Signal::aacTrack($sound, language: 'eng'), Signal::aacTrack($sound, language: 'ger'),
            Signal::aacTrack($sound, language: 'eng')]));
    $source = Reader::read($path);
    $meant = fn (string $said): array => array_map(fn (array $tracks): string => implode('+', $tracks),
        TrackSelection::parse($said)->select($source->sound()));
    $refused = fn (string $said): Closure => fn () => Planning::plans($source,
        new OutputSpec('wav', sounds: [new SoundSpec($said)], place: Scratch::folder()));
    expect($meant('2'))->toBe(['2'])
        ->and($meant('eng'))->toBe(['1', '3'])->and($meant('English'))->toBe(['1', '3'])
        ->and($meant('deu'))->toBe(['2'])->and($meant('ger'))->toBe(['2'])->and($meant('de'))->toBe(['2'])
        ->and($meant('all'))->toBe(['1', '2', '3'])->and($meant('joined'))->toBe(['1+2+3'])->and($meant('3+1, welsh,2'))->toBe(['3+1', '2'])
        ->and($meant(''))->toBe([])
        ->and($refused('4'))->toThrow(CannotPlan::class, 'There is no sound track 4 in this file; choose one of these: 1, 2, 3.')
        ->and($refused('1+4'))->toThrow(CannotPlan::class, 'There is no sound track 4')
        ->and($refused('fr'))->toThrow(CannotPlan::class,
            'There is no sound track in the language French in this file; it has these: English, German, English.');
});
