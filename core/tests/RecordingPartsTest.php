<?php

declare(strict_types=1);

use Octavox\Core\Make\JoinedRecording;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\RecordingParts;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return list<list<string>> names of what belongs together of files that were closed at some time */
function together(array $files): array
{
    $folder = Scratch::folder();
    $readings = $closed = [];
    foreach ($files as $name => [$frames, $time, $bits, $reference]) {
        $tags = $reference === null ? null : Tags::none()->withTimeReference($reference);
        file_put_contents("$folder/$name", Signal::wave([Signal::steps($frames, 1), Signal::steps($frames, 3)],
            SampleFormat::signed($bits), tags: $tags));
        $readings[$name] = Reader::read("$folder/$name");
        $closed[$name] = $time;
    }

    return RecordingParts::group($readings, $closed);
}

it('finds the files into which a recorder cut one recording', function (array $files, array $expected) {
    expect(together($files))->toBe($expected);
})->with([
    'by when they were closed' => [['T1_2.wav' => [480_000, 1020, 16, null], 'T1_1.wav' => [480_000, 1010, 16, null], 'T1_3.wav' => [96_000, 1022, 16, null]],
        [['T1_1.wav', 'T1_2.wav', 'T1_3.wav']]],
    'by their time references' => [['A001.wav' => [4800, 5, 24, 9600], 'A002.wav' => [4800, 90_000, 24, 14_400], 'A003.wav' => [4800, 5,
        24, 60_000]],
        [['A001.wav', 'A002.wav'], ['A003.wav']]],
    'takes with a pause' => [['T1.wav' => [480_000, 1010, 16, null], 'T2.wav' => [480_000, 1060, 16, null]], [['T1.wav'], ['T2.wav']]],
    'a short take before a long one' => [['T1.wav' => [48_000, 1001, 16, null], 'T2.wav' => [480_000, 1011, 16, null]], [['T1.wav'],
        ['T2.wav']]],
    'other samples' => [['T1.wav' => [480_000, 1010, 16, null], 'T2.wav' => [240_000, 1015, 24, null]], [['T1.wav'], ['T2.wav']]],
    'other names' => [['Gate1.wav' => [480_000, 1010, 16, null], 'Lock2.wav' => [480_000, 1020, 16, null], 'T9.wav' => [480_000, 1030, 16,
        null],
        'T11.wav' => [480_000, 1040, 16, null]], [['Gate1.wav'], ['Lock2.wav'], ['T9.wav'], ['T11.wav']]],
    'from nine to ten' => [['T9.wav' => [480_000, 1010, 16, null], 'T10.wav' => [48_000, 1011, 16, null]], [['T9.wav', 'T10.wav']]],
]);

it('takes what cannot be read for itself', function () {
    expect(RecordingParts::group(['a1' => null, 'a2' => null], ['a1' => 1, 'a2' => 1]))->toBe([['a1'], ['a2']])
        ->and(RecordingParts::group([], []))->toBe([]);
});

it('writes them as one, to the sample', function () {
    $folder = Scratch::folder();
    $paths = [];
    $all = '';
    foreach ([1000, 70_001, 3] as $number => $frames) {
        $bytes = Signal::wave([Signal::steps($frames, 5 + $number), Signal::steps($frames, 50 + $number)], SampleFormat::signed(24),
            tags: Tags::none()->withTimeReference(1000 * $number));
        file_put_contents($paths[] = "$folder/$number.wav", $bytes);
        $all .= substr($bytes, strpos($bytes, 'data') + 8, 6 * $frames);
    }
    expect(JoinedRecording::write($paths, "$folder/joined.wav"))->toBe(71_004);
    $joined = (string) file_get_contents("$folder/joined.wav");
    expect(substr($joined, strpos($joined, 'data') + 8, strlen($all)))->toBe($all)
        ->and(Reader::read("$folder/joined.wav")->sound()[0]->timeline->samples())->toBe(71_004)
        ->and(Reader::read("$folder/joined.wav")->tags->timeReference)->toBe(0);
});
