<?php

declare(strict_types=1);

use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\CoverUnusable;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\SpecInvalid;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Tests\Support\SampleLibrary;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** What is made of a source, as its reader opens it. */
function madeBy(string $path, OutputSpec $spec): string
{
    $plan = Planning::stored(Planning::plan(Reader::read($path), $spec->over(new OutputSpec(place: Scratch::folder()))));

    return (new Maker)->make($plan, 'said')->path;
}

function lift(?Tags $tags = null): string
{
    return Scratch::write('lift.wav', Signal::wave([Signal::sweep(9600), Signal::sweep(9600)], SampleFormat::signed(24), tags: $tags));
}

it('says what broadcasters want to know, as another library reads it', function () {
    $said = new Broadcast('Gates, second take', 'Wrenfield canal', 'WREN2026-0042', '2026-05-09', '14:03:22');
    $made = madeBy(lift(), new OutputSpec('wav', broadcast: $said, sounds: [new SoundSpec(bitDepth: 16)]));
    expect(SampleLibrary::broadcast($made))->toBe(['description' => 'Gates, second take', 'originator' => 'Wrenfield canal',
        'reference' => 'WREN2026-0042', 'date' => '2026-05-09', 'time' => '14:03:22', 'samples' => 0,
        'history' => "A=PCM,F=48000,W=16,M=stereo,T=Octavox\r\n"])
        ->and(Reader::read($made)->tags->broadcast)->toEqual($said->over(new Broadcast(history: 'A=PCM,F=48000,W=16,M=stereo,T=Octavox')))
        ->and(Reader::read($made)->tags->recorded)->toBe('2026-05-09T14:03:22');
    // What is made of that keeps what it says, and adds how it was made; a single field can be said anew.
    $again = madeBy($made, new OutputSpec('wav', broadcast: new Broadcast(originator: 'Lock seven'),
        sounds: [new SoundSpec(rate: 44_100)]));
    expect(SampleLibrary::broadcast($again))->toMatchArray(['description' => 'Gates, second take', 'originator' => 'Lock seven',
        'reference' => 'WREN2026-0042', 'time' => '14:03:22',
        'history' => "A=PCM,F=48000,W=16,M=stereo,T=Octavox\r\nA=PCM,F=44100,W=16,M=stereo,T=Octavox\r\n"]);
    $kept = madeBy($again, new OutputSpec('wav'));
    expect(SampleLibrary::broadcast($kept))->toBe(SampleLibrary::broadcast($again));
});

it('asks for the fields alone, and fills them with what is known', function () {
    $path = lift(Tags::none()->with(TagField::Title, 'Steam day')->with(TagField::Year, '1994-06-11'));
    expect(SampleLibrary::broadcast(madeBy($path, new OutputSpec('wav'))))->toBe([])
        ->and(SampleLibrary::broadcast(madeBy($path, new OutputSpec('wav', broadcast: new Broadcast))))
        ->toMatchArray(['description' => 'Steam day', 'originator' => 'Octavox', 'date' => '1994-06-11', 'time' => '']);
});

it('takes only what the fields have room for, and only where there are such fields', function () {
    foreach (['description' => str_repeat('ä', 129), 'date' => '9 May', 'time' => '2 pm', 'colour' => 'red'] as $field => $value) {
        expect(fn () => OutputSpec::fromArray(['version' => 1, 'broadcast' => [$field => $value]]))
            ->toThrow(SpecInvalid::class, "broadcast.$field");
    }
    foreach (['flac', 'mp3', 'aiff', 'mov'] as $format) {
        expect(fn () => madeBy(lift(), new OutputSpec($format, broadcast: new Broadcast)))
            ->toThrow(CannotPlan::class, 'no choice of fields for broadcasting');
    }
    expect(Outputs::named('float')?->capabilities()->holdsBroadcast)->toBeTrue();
});

it('reads dates as recorders write them, and none that is no date', function (string $date, string $time, string $recorded) {
    $body = str_pad('', 320, "\0").str_pad($date, 10, "\0").str_pad($time, 8, "\0").str_repeat("\0", 602 - 338);
    $wave = (string) file_get_contents(lift());
    $path = Scratch::write('recorder.wav', substr($wave, 0, 12).'bext'.pack('V', 602).$body.substr($wave, 12));
    expect(Reader::read($path)->tags->recorded)->toBe($recorded);
})->with([
    ['2026-05-09', '14:03:22', '2026-05-09T14:03:22'], ['2026:05:09', '14-03-22', '2026-05-09T14:03:22'], ['2026_05_09', '', '2026-05-09'],
    ['2026/05/09', '14.03.22', '2026-05-09T14:03:22'], ['0000-00-00', '00:00:00', ''], ['2026-02-30', '', ''], ["\xFF\xFE", '', ''],
    ['', '14:03:22', ''],
]);

it('carries the date on which it was recorded from one container into others', function (string $format) {
    $path = lift(Tags::none()->withRecorded('2026-05-09T14:03:22')->withBroadcast(new Broadcast(date: '2026-05-09', time: '14:03:22')));
    $made = madeBy($path, new OutputSpec($format));
    expect(Reader::read($made)->tags->recorded)->toStartWith('2026-05-09T14:03:22')
        ->and(Planning::plan(Reader::read($made), new OutputSpec('wav', name: '{recorded} {stem}', place: '/x'))->name())
        ->toBe('2026-05-09 lift.wav');
})->with(['alac', 'aac', 'wav']);

it('reads the date of a movie where it is one', function (string $version, string $time, string $recorded) {
    $movie = (string) file_get_contents(madeBy(lift(), new OutputSpec('alac')));
    $at = (int) strpos($movie, 'mvhd') + 4;
    $changed = substr_replace($movie, "\1\0\0\0".$time, $at, 12);
    expect(Reader::read(Scratch::write('dated.m4a', $changed))->tags->recorded)->toBe($recorded)->and($version)->toBe('1');
})->with([
    ['1', pack('J', 2_082_844_800 + 1_778_335_402), '2026-05-09T14:03:22Z'], ['1', pack('J', 0), ''],
    ['1', pack('J', 1_778_335_402), ''], ['1', pack('J', PHP_INT_MAX), ''], ['1', str_repeat("\xFF", 8), ''],
]);

/** The smallest picture of a kind, of any length. */
function picture(string $type, int $bytes = 500): string
{
    return Scratch::write('cover', ($type === 'png' ? "\x89PNG\r\n\x1A\n" : "\xFF\xD8\xFF\xE0").str_repeat('p', $bytes));
}

it('gives a result the cover that is asked for, none, or that of its source', function (string $format) {
    $own = new Cover('image/jpeg', "\xFF\xD8\xFF\xE0".str_repeat('o', 300));
    $path = madeBy(lift(Tags::none()->withCover($own)), new OutputSpec('flac'));
    $cover = fn (?string $asked): ?Cover => Opener::open(madeBy($path, new OutputSpec($format, cover: $asked)))->media->tags()->cover;
    expect($cover(null))->toEqual($own)->and($cover(''))->toBeNull()
        ->and($cover(picture('png')))->toEqual(new Cover('image/png', (string) file_get_contents(picture('png'))))
        ->and($cover(picture('jpeg')))->toEqual(new Cover('image/jpeg', (string) file_get_contents(picture('jpeg'))));
})->with(['mp3', 'flac', 'alac', 'opus', 'wav']);

it('counts the cover into the size that it predicts', function (string $format, int $more) {
    $planned = fn (?string $cover): int => SourceInspector::plan([new OrderLine(Reader::read(lift()))],
        new OutputSpec($format, cover: $cover, place: '/x'))[0]->plans[0]->target->predictedBytes;
    expect($planned(picture('png', 40_000)) - $planned(null))->toBe($more);
})->with([['mp3', 40_008], ['flac', 40_008], ['wav', 40_008], ['au', 0]]);

it('makes nothing with a cover that is none, is gone, or is too large', function (string $path, string $says) {
    $folder = Scratch::folder();
    expect(fn () => madeBy(lift(), new OutputSpec('mp3', cover: $path, place: $folder)))->toThrow(Octavox\Core\Failure::class, $says)
        ->and(glob("$folder/*"))->toBe([]);
})->with([
    fn (): array => [Scratch::write('text', 'no picture'), 'neither a JPEG nor a PNG'], fn (): array => ['/nowhere/cover.png',
        'no such file'],
    fn (): array => [picture('png', Cover::MOST_BYTES), '16 MB at most'],
]);

it('throws a cover that cannot be used as what it is', function () {
    expect(fn () => madeBy(lift(), new OutputSpec('mp3', cover: Scratch::write('text', 'no picture'))))->toThrow(CoverUnusable::class);
});
