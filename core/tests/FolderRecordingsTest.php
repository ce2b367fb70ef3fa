<?php

declare(strict_types=1);

use Octavox\Core\Container\Cue\SheetFiles;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\FolderRecordings;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @param  array<string, string>  $files */
function folderWith(array $files): string
{
    $folder = Scratch::folder();
    foreach ($files as $name => $bytes) {
        file_put_contents("$folder/$name", $bytes);
    }

    return $folder;
}

/** A sheet with a track in each file. */
function sheetOver(string ...$files): string
{
    return implode('', array_map(fn (int $index, string $file): string => sprintf("FILE \"%s\" %s\nTRACK %02d AUDIO\nINDEX 01 00:00:00\n",
        $file, str_ends_with(strtolower($file), '.bin') ? 'BINARY' : 'WAVE', $index + 1), array_keys($files), $files));
}

it('knows which files of a folder are no recordings by themselves', function (array $files, array $besides, array $parts) {
    $names = array_keys($files);
    $found = FolderRecordings::of(folderWith($files), $names);
    expect(array_values(array_filter($names, fn (string $name): bool => $found->says($name) !== null)))->toBe($besides)
        ->and(array_filter(array_combine($names, array_map($found->parts(...), $names))))->toBe($parts)
        ->and(array_keys(array_filter(array_combine($names, array_map($found->before(...), $names)))))->toBe($besides)
        ->and($found->before('nowhere'))->toBeNull();
})->with([
    'an image' => [['a.bin' => 'x', 'a.cue' => sheetOver('a.bin'), 'b.wav' => 'x'], ['a.bin'], ['a.cue' => ['a.bin']]],
    'an image of several files' => [['a.cue' => sheetOver('1.BIN', '2.bin'), '1.bin' => 'x', '2.bin' => 'x'], ['1.bin', '2.bin'],
        ['a.cue' => ['1.bin', '2.bin']]],
    'one recording' => [['a.cue' => sheetOver('C:\\Rips\\a.wav'), 'a.wav' => 'x'], ['a.wav'], ['a.cue' => ['a.wav']]],
    'a recording that was packed since' => [['a.cue' => sheetOver('a.wav'), 'a.flac' => 'x'], ['a.flac'], ['a.cue' => ['a.flac']]],
    'recordings of one track each' => [['a.cue' => sheetOver('1.wav', '2.wav'), '1.flac' => 'x', '2.flac' => 'x'], ['a.cue'], []],
    'a sheet over nothing' => [['a.cue' => sheetOver('a.bin'), 'b.bin' => 'x'], [], []],
    'one of two is missing' => [['a.cue' => sheetOver('1.bin', '2.bin'), '1.bin' => 'x'], [], []],
    'data' => [['a.cue' => sheetOver('a.bin')."TRACK 02 MODE1/2352\nINDEX 01 00:01:00\n", 'a.bin' => 'x'], [], []],
    'more files than a disc has tracks' => [['a.cue' => sheetOver(...array_fill(0, 100, 'a.wav')), 'a.wav' => 'x'], [], []],
    'as many' => [['a.cue' => sheetOver(...array_fill(0, 99, 'a.wav')), 'a.wav' => 'x'], ['a.wav'], ['a.cue' => ['a.wav']]],
    'another text' => [['a.cue' => 'Cue: lights, curtain', 'a.wav' => 'x'], [], []],
    'two sheets over one' => [['a.cue' => sheetOver('a.wav'), 'b.cue' => sheetOver('a.wav'), 'a.wav' => 'x'], ['a.wav'],
        ['a.cue' => ['a.wav'], 'b.cue' => ['a.wav']]],
    'a video disc' => [['VIDEO_TS.BUP' => 'x', 'VIDEO_TS.IFO' => 'x', 'VTS_01_1.VOB' => 'x'], ['VIDEO_TS.BUP', 'VTS_01_1.VOB'],
        ['VIDEO_TS.IFO' => ['VIDEO_TS.BUP', 'VTS_01_1.VOB']]],
    'nothing' => [[], [], []],
]);

it('finds the file that a sheet means', function (string $said, string $kind, array $names, ?string $meant) {
    expect(SheetFiles::meant($said, $kind, $names))->toBe($meant);
})->with([
    'as it stands there' => ['a.wav', 'WAVE', ['A.wav', 'a.wav', 'a.flac'], 'a.wav'],
    'of another machine' => ['D:\\x\\a.wav', 'WAVE', ['a.wav'], 'a.wav'],
    'in capitals' => ['BAND.BIN', 'BINARY', ['band.bin', 'band.cue'], 'band.bin'],
    'in capitals twice' => ['BAND.BIN', 'BINARY', ['band.bin', 'Band.bin'], null],
    'packed' => ['Éa.WAV', 'WAVE', ['éa.flac'], 'éa.flac'],
    'packed twice' => ['a.wav', 'WAVE', ['a.flac', 'a.wv'], null],
    'a picture of the name' => ['a.wav', 'WAVE', ['a.jpg', 'a.txt'], null],
    'an image is no recording' => ['a.bin', 'BINARY', ['a.flac'], null],
    'itself' => ['a.cue', 'WAVE', ['a.cue', 'a.flac'], null],
    'nothing there' => ['a.wav', 'WAVE', [], null],
]);

it('reads a sheet whose recording was packed since, and says plainly what is missing', function () {
    $wave = Signal::wave([Signal::steps(44_100, 1), Signal::steps(44_100, 2)], SampleFormat::signed(16), 44_100);
    $folder = folderWith(['day.cue' => "FILE \"Day.wav\" WAVE\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nTRACK 02 AUDIO\nINDEX 01 00:00:30\n",
        'take.wav' => $wave]);
    expect(fn () => Reader::read("$folder/day.cue"))->toThrow(Octavox\Core\Container\Cue\SheetUnusable::class, 'Day.wav');
    octavox('make', "$folder/take.wav", '--into', $folder, '--format', 'flac', '--name', 'day');
    $reading = Reader::read("$folder/day.cue");
    expect($reading->chapters)->toHaveCount(2)->and($reading->sound()[0]->timeline->samples())->toBe(44_100);
});

it('makes of an album with a sheet what is there once, from the command line', function () {
    $into = Scratch::folder();
    $wave = fn (int $value): string => Signal::wave([Signal::steps(30_000, $value), Signal::steps(30_000, $value)],
        SampleFormat::signed(16), 44_100);
    $each = folderWith(['0 Album.cue' => sheetOver('1.wav', '2.wav'), '1.wav' => $wave(1), '2.wav' => $wave(2)]);
    $whole = folderWith(['Day.cue' => sheetOver('Day.wav'), 'Day.wav' => $wave(3)]);
    [$status, $said] = octavox('make', $each, $whole, '--into', $into, '--format', 'flac', '--json');
    expect($status)->toBe(0)->and(array_map(basename(...), array_column($said['results'], 'path')))->toBe(['1.flac', '2.flac', 'Day.flac'])
        ->and(array_column($said['results'], 'source'))->toContain("$whole/Day.cue")
        ->and(array_map(fn (array $one): array => [basename($one['path']), $one['code']], $said['left_out']))->toBe([['0 Album.cue',
            'part'], ['Day.wav', 'part']]);
    // What is named counts, whatever lies beside it.
    [, $named] = octavox('make', "$whole/Day.wav", "$whole/Day.cue", '--into', Scratch::folder(), '--format', 'flac', '--json');
    expect($named['results'])->toHaveCount(2)->and($named['left_out'])->toBe([]);
    [$status, $read] = octavox('read', $each, $whole, '--json');
    expect($status)->toBe(0)->and(array_map(fn (array $one): string => basename($one['path']), $read['sources']))->toBe(['1.wav', '2.wav',
        'Day.cue'])
        ->and($read['left_out'])->toHaveCount(2);
});

it('lets no result take the place of what lies behind a sheet, whatever is asked', function (array $files, string $format) {
    $folder = folderWith($files);
    $sums = fn (): array => array_map(fn (string $name): string => md5_file("$folder/$name"), array_combine(array_keys($files),
        array_keys($files)));
    $before = $sums();
    foreach ([[$folder], ["$folder/Day.cue"]] as $paths) {
        [$status, $said] = octavox('make', ...[...$paths, '--beside', '--format', $format, '--exists', 'replace', '--json']);
        expect($status)->toBe(1)->and($said['results'][0]['error']['code'])->toBe('would-replace-source')->and($sums())->toBe($before);
    }
    // Under another name it is made.
    [$status] = octavox('make', "$folder/Day.cue", '--beside', '--format', $format, '--exists', 'number');
    expect($status)->toBe(0)->and($sums())->toBe($before)->and(is_file("$folder/Day 2.$format"))->toBeTrue();
})->with([
    'the recording that it names' => [['Day.cue' => sheetOver('Day.wav'), 'Day.wav' => Signal::wave([Signal::steps(30_000, 1),
        Signal::steps(30_000, 2)], SampleFormat::signed(16), 44_100)], 'wav'],
    'called otherwise there' => [['Day.cue' => sheetOver('day.WAV'), 'Day.wav' => Signal::wave([Signal::steps(30_000, 1),
        Signal::steps(30_000, 2)], SampleFormat::signed(16), 44_100)], 'wav'],
]);

it('names what lies behind a source', function () {
    $folder = folderWith(['a.cue' => sheetOver('1.bin', '2.bin', 'gone.bin'), '1.bin' => 'x', '2.BIN' => 'x', 'b.cue' => 'text',
        'VIDEO_TS.IFO' => 'x', 'VTS_01_1.VOB' => 'x']);
    $behind = fn (string $name): array => array_map(basename(...), FolderRecordings::behind("$folder/$name"));
    expect($behind('a.cue'))->toBe(['1.bin', '2.BIN'])->and($behind('b.cue'))->toBe([])->and($behind('1.bin'))->toBe([])
        ->and($behind('gone.cue'))->toBe([])
        ->and($behind('VIDEO_TS.IFO'))->toBe(['1.bin', '2.BIN', 'VTS_01_1.VOB', 'a.cue', 'b.cue']);
});
