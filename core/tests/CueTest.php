<?php

declare(strict_types=1);

use Octavox\Core\Container\Cue\CueSheet;
use Octavox\Core\Container\Cue\SheetUnusable;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return string samples of 16 bits as a disc has them: so many sectors of 588 frames */
function sectors(int $count, int $seed): string
{
    mt_srand($seed);

    return pack('v*', ...array_map(fn (): int => mt_rand(0, 65_535), range(1, $count * 1176)));
}

/** @param  array<string, string>  $files  contents by name; the first is the sheet */
function disc(array $files): string
{
    $folder = Scratch::folder();
    foreach ($files as $name => $bytes) {
        file_put_contents("$folder/$name", $bytes);
    }

    return $folder.'/'.array_key_first($files);
}

const SHEET = "REM GENRE Brass\r\nREM DATE 2026\r\nPERFORMER \"Wrenfield Brass\"\r\nTITLE \"Steam day\"\r\nFILE \"Band.bin\" BINARY\r\n  TRACK 01 AUDIO\r\n"
    ."    TITLE \"Gate march\"\r\n    INDEX 00 00:00:00\r\n    INDEX 01 00:02:00\r\n  TRACK 02 AUDIO\r\n    TITLE \"Lift waltz\"\r\n"
    ."    PERFORMER \"Keeper\"\r\n    INDEX 01 00:03:37\r\n";

it('takes the tracks of a disc image, each to the sample, with its words', function () {
    $image = sectors(400, 1);
    $sheet = disc(['Band.cue' => SHEET, 'Band.bin' => $image]);
    $reading = Reader::read($sheet);
    expect($reading->container)->toBe('cue')->and($reading->sound()[0]->timeline->samples())->toBe(400 * 588)
        ->and($reading->tags->values())->toMatchArray(['album' => 'Steam day', 'album_artist' => 'Wrenfield Brass', 'genre' => 'Brass', 'year' => '2026'])
        ->and(array_column(array_map(fn ($one): array => $one->toArray(), $reading->chapters), 'title'))->toBe(['Gate march', 'Keeper – Lift waltz']);
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $sheet, '--into', $into, '--format', 'wav', '--pieces', 'chapters', '--each', '--name', '{track:2} {title}', '--json');
    expect($status)->toBe(0)->and(array_map(fn (array $one): string => basename($one['path']), $said['results']))
        ->toBe(['01 Gate march.wav', '02 Keeper – Lift waltz.wav']);
    // From 2:00 to 3:37 and on to the end, 75 sectors a second.
    foreach ([[150, 262], [262, 400]] as $index => [$from, $until]) {
        $made = (string) file_get_contents($said['results'][$index]['path']);
        $at = strpos($made, 'data') + 8;
        expect(substr($made, $at, ($until - $from) * 2352))->toBe(substr($image, $from * 2352, ($until - $from) * 2352));
        expect(Reader::read($said['results'][$index]['path'])->tags->values())->toMatchArray(['track' => (string) ($index + 1), 'album' => 'Steam day']);
    }
});

it('reveals what is hidden before the first track, and reads the other order of bytes', function () {
    $image = sectors(400, 2);
    $swapped = implode('', array_map(strrev(...), str_split($image, 2)));
    $text = str_replace(['BINARY', 'INDEX 01 00:02:00'], ['MOTOROLA', 'INDEX 01 00:03:00'], SHEET);
    $sheet = disc(['Band.cue' => $text, 'Band.bin' => $swapped]);
    expect(array_map(fn ($one): array => [$one->starts, $one->title], Reader::read($sheet)->chapters))
        ->toEqual([[0.0, 'Hidden before the first track'], [3.0, 'Gate march'], [3 + 37 / 75, 'Keeper – Lift waltz']]);
    $into = Scratch::folder();
    octavox('make', $sheet, '--into', $into, '--format', 'wav', '--bits', '16', '--name', 'all');
    $made = (string) file_get_contents("$into/all.wav");
    expect(substr($made, strpos($made, 'data') + 8, strlen($image)))->toBe($image);
});

it('reads one long recording with its sheet, and several files as one disc', function () {
    $long = Signal::wave([Signal::steps(441_000, 1), Signal::steps(441_000, 2)], SampleFormat::signed(16), 44_100);
    $folder = dirname(disc(['day.wav' => $long]));
    octavox('make', "$folder/day.wav", '--into', $folder, '--format', 'flac');
    $of = fn (string $file, string $kind): string => "FILE $file $kind\nTRACK 1 AUDIO\nINDEX 01 00:00:00\nTRACK 2 AUDIO\nINDEX 01 00:04:00\n";
    foreach (['"day.wav"' => 'WAVE', 'day.flac' => 'WAVE', '"C:\\Discs\\day.wav"' => 'WAVE'] as $file => $kind) {
        file_put_contents("$folder/day.cue", $of($file, $kind));
        $reading = Reader::read("$folder/day.cue");
        expect($reading->sound()[0]->timeline->samples())->toBe(441_000)->and($reading->chapters)->toHaveCount(2)
            ->and($reading->chapters[1]->title)->toBe('Track 2');
    }
    $parts = [sectors(10, 3), sectors(7, 4), sectors(20, 5)];
    $sheet = disc(['disc.cue' => "FILE \"1.bin\" BINARY\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nFILE \"2.bin\" BINARY\nTRACK 02 AUDIO\nINDEX 00 00:00:00\nINDEX 01 00:00:02\n"
        ."FILE \"3.bin\" BINARY\nTRACK 03 AUDIO\nINDEX 01 00:00:00\n", '1.bin' => $parts[0], '2.bin' => $parts[1], '3.bin' => $parts[2]]);
    expect(array_map(fn ($one): float => round($one->starts * 75, 3), Reader::read($sheet)->chapters))->toEqual([0.0, 12.0, 17.0]);
    $into = Scratch::folder();
    octavox('make', $sheet, '--into', $into, '--format', 'wav', '--name', 'all');
    $made = (string) file_get_contents("$into/all.wav");
    expect(substr($made, strpos($made, 'data') + 8, 37 * 2352))->toBe(implode('', $parts));
});

it('refuses a sheet by which nothing can be read, and leaves what lies elsewhere closed', function (string $text, array $files) {
    expect(fn () => Reader::read(disc(['x.cue' => $text] + $files)))->toThrow(SheetUnusable::class);
})->with([
    'a file that is missing' => [SHEET, []],
    'a file of another folder' => [str_replace('Band.bin', '../../etc/passwd', SHEET), ['passwd' => 'x']],
    'itself' => [str_replace('Band.bin', 'x.cue', SHEET), []],
    'data' => [str_replace('TRACK 02 AUDIO', 'TRACK 02 MODE1/2352', SHEET), ['Band.bin' => str_repeat("\0", 9408)]],
    'files that differ' => ["FILE a.wav WAVE\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nFILE b.bin BINARY\nTRACK 02 AUDIO\nINDEX 01 00:00:00\n",
        ['b.bin' => str_repeat("\1", 9408), 'a.wav' => Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(24))]],
]);

it('reads sheets in bounds, whatever stands in them', function () {
    $many = "FILE a.bin BINARY\n".implode('', array_map(fn (int $track): string => sprintf("TRACK %d AUDIO\nINDEX 01 %02d:00:00\n", $track, $track), range(1, 200)));
    // A disc has 99 at most, and what is hidden before the first.
    expect(CueSheet::parse($many)->tracks)->toHaveCount(100);
    $tracks = Reader::read(disc(['a.cue' => $many, 'a.bin' => sectors(20, 6)]))->chapters;
    expect(count($tracks))->toBeLessThanOrEqual(1);
    mt_srand(7);
    for ($time = 0; $time < 300; $time++) {
        $text = SHEET;
        for ($change = 0; $change < 5; $change++) {
            $text[mt_rand(0, strlen($text) - 1)] = chr(mt_rand(0, 255));
        }
        try {
            Reader::read(disc(['a.cue' => $text, 'Band.bin' => str_repeat("\1\2", 2352)]));
        } catch (Octavox\Core\Failure $failure) {
            expect($failure->getMessage())->not->toBe('');
        }
    }
    expect(CueSheet::isOne('FILE'))->toBeFalse();
});
