<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Cue\CueSheet;
use Octavox\Core\Container\Cue\DiscText;
use Octavox\Core\Container\Cue\SheetUnusable;
use Octavox\Core\Container\Cue\SheetWriter;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\SourceChanged;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
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
        ->and($reading->tags->values())->toMatchArray(['album' => 'Steam day', 'album_artist' => 'Wrenfield Brass', 'genre' => 'Brass',
            'year' => '2026'])
        ->and(array_column(array_map(fn ($one): array => $one->toArray(), $reading->chapters), 'title'))->toBe(['Gate march',
            'Keeper – Lift waltz']);
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $sheet, '--into', $into, '--format', 'wav', '--pieces', 'chapters', '--each', '--name',
        '{track:2} {title}', '--json');
    expect($status)->toBe(0)->and(array_map(fn (array $one): string => basename($one['path']), $said['results']))
        ->toBe(['01 Gate march.wav', '02 Lift waltz.wav']);
    // From 2:00 to 3:37 and on to the end, 75 sectors a second.
    foreach ([[150, 262], [262, 400]] as $index => [$from, $until]) {
        $made = (string) file_get_contents($said['results'][$index]['path']);
        $at = strpos($made, 'data') + 8;
        expect(substr($made, $at, ($until - $from) * 2352))->toBe(substr($image, $from * 2352, ($until - $from) * 2352));
        expect(Reader::read($said['results'][$index]['path'])->tags->values())->toMatchArray(['track' => (string) ($index + 1), 'album' => 'Steam day',
            'artist' => ['Wrenfield Brass', 'Keeper'][$index]]);
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
    $many = "FILE a.bin BINARY\n".implode('', array_map(fn (int $track): string => sprintf("TRACK %d AUDIO\nINDEX 01 %02d:00:00\n",
        $track, $track), range(1, 200)));
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

/** A pack of disc text with its sum. */
function textPack(int $kind, int $track, int $sequence, int $place, string $text): string
{
    $pack = chr($kind).chr($track).chr($sequence).chr($place).str_pad($text, 12, "\0");
    $sum = 0;
    foreach (str_split($pack) as $byte) {
        for ($bit = 7; $bit >= 0; $bit--) {
            $high = ($sum >> 15 & 1) ^ (ord($byte) >> $bit & 1);
            $sum = ($sum << 1 & 0xFFFF) ^ ($high === 1 ? 0x1021 : 0);
        }
    }

    return $pack.pack('n', $sum ^ 0xFFFF);
}

it('takes words from the text of the disc itself, codes of tracks, and leaves gaps out where that is asked', function () {
    $image = sectors(400, 8);
    // “Steam day”, “Gate march” and “Lift waltz” run on from pack to pack, of twelve letters each.
    $titles = str_split("Steam day\0Gate march\0Lift waltz\0", 12);
    $packs = textPack(0x80, 0, 0, 0, $titles[0]).textPack(0x80, 1, 1, 2, $titles[1]).textPack(0x80, 2, 2, 3, $titles[2])
        .textPack(0x81, 0, 3, 0, "Band\0\t\0Keepe").textPack(0x81, 2, 4, 5, 'r')."\0";
    $broken = textPack(0x80, 1, 9, 0, "Wrong\0");
    $broken[17] = chr(ord($broken[17]) ^ 1);
    $text = "CATALOG 0123456789012\nCDTEXTFILE \"Band.cdt\"\nFILE \"Band.bin\" BINARY\nTRACK 01 AUDIO\nISRC ZZ-WRN-26-00001\nINDEX 01 00:00:00\n"
        ."TRACK 02 AUDIO\nISRC nonsense\nINDEX 00 00:02:00\nINDEX 01 00:03:00\n";
    $sheet = disc(['Band.cue' => $text, 'Band.bin' => $image, 'Band.cdt' => $broken.$packs]);
    $reading = Reader::read($sheet);
    expect($reading->tags->values())->toMatchArray(['album' => 'Steam day', 'album_artist' => 'Band'])
        ->and($reading->tags->free())->toHaveKey('BARCODE')
        ->and(array_map(fn ($one): array => [$one->title, $one->disc->isrc, $one->disc->performer, $one->disc->ends], $reading->chapters))
        ->toEqual([['Gate march', 'ZZWRN2600001', '', 2.0], ['Keeper – Lift waltz', '', 'Keeper', null]]);
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $sheet, '--into', $into, '--format', 'wav', '--pieces', 'chapters:without-gaps', '--each', '--name',
        '{track:2} {title}', '--json');
    expect($status)->toBe(0);
    foreach ([[0, 150], [225, 400]] as $index => [$from, $until]) {
        $made = (string) file_get_contents($said['results'][$index]['path']);
        expect(md5(substr($made, strpos($made, 'data') + 8, ($until - $from) * 2352)))->toBe(md5(substr($image, $from * 2352,
            ($until - $from) * 2352)))
            ->and($said['results'][$index]['samples'])->toBe(($until - $from) * 588);
    }
    expect(Reader::read($said['results'][0]['path'])->tags->values())->toMatchArray(['isrc' => 'ZZWRN2600001', 'artist' => 'Band', 'track' => '1']);
});

it('takes pre-emphasis off where the disc has it, along the curve of the standard', function () {
    // Three tracks of a second, with the same six tones; the second has pre-emphasis.
    $tones = [100.0, 1000.0, 3183.0, 6000.0, 10_000.0, 16_000.0];
    $samples = array_map(fn (int $index): float => array_sum(array_map(fn (float $tone): float => 0.1 * sin(2 * M_PI * $tone * $index / 44_100), $tones)),
        range(0, 3 * 44_100 - 1));
    $wave = Signal::wave([$samples, array_map(fn (float $one): float => -$one, $samples)], SampleFormat::signed(24), 44_100);
    $sheet = disc(['Bright.cue' => "FILE \"Bright.wav\" WAVE\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nTRACK 02 AUDIO\nFLAGS PRE DCP\nINDEX 01 00:01:00\n"
        ."TRACK 03 AUDIO\nINDEX 01 00:02:00\n", 'Bright.wav' => $wave]);
    expect(array_map(fn ($one): string => $one->code(), Reader::read($sheet)->findings))->toContain('pre-emphasis');
    $into = Scratch::folder();
    [, $plain] = octavox('make', $sheet, '--into', $into, '--format', 'flac', '--name', 'plain', '--json');
    [$status, $said] = octavox('make', $sheet, '--into', $into, '--format', 'flac', '--bits', '24', '--name', 'taken', '--de-emphasis',
        '--dither', 'off',
        '--json');
    expect($status)->toBe(0)->and($plain['results'][0]['samples'])->toBe(3 * 44_100)->and($said['results'][0]['samples'])->toBe(3 * 44_100);
    $got = Signal::decodeFile($said['results'][0]['path']);
    $level = function (array $sound, float $tone, int $from): float {
        [$real, $imaginary] = [0.0, 0.0];
        for ($index = 0; $index < 22_050; $index++) {
            $real += $sound[$from + $index] * cos(2 * M_PI * $tone * $index / 44_100);
            $imaginary += $sound[$from + $index] * sin(2 * M_PI * $tone * $index / 44_100);
        }

        return 20 * log10(sqrt($real ** 2 + $imaginary ** 2) / 22_050 * 20);
    };
    foreach ($tones as $tone) {
        // (1 + s·15 µs) / (1 + s·50 µs), computed here from the time constants.
        $turn = 2 * M_PI * $tone;
        $curve = 10 * log10((1 + ($turn * 15e-6) ** 2) / (1 + ($turn * 50e-6) ** 2));
        foreach ([0, 1] as $channel) {
            expect($level($got[$channel], $tone, 55_125))->toEqualWithDelta($curve, 0.13)
                ->and($level($got[$channel], $tone, 11_025))->toEqualWithDelta(0.0, 0.02);
        }
    }
    // Not a sample beside the track is touched.
    $whole = Signal::decodeFile($plain['results'][0]['path']);
    foreach ([[0, 44_100], [88_200, 132_300]] as [$from, $until]) {
        expect(md5(serialize(array_slice($got[0], $from, $until - $from))))->toBe(md5(serialize(array_slice($whole[0], $from,
            $until - $from))));
    }
    // One track alone is begun anew, and one without pre-emphasis is kept to the sample.
    [, $each] = octavox('make', $sheet, '--into', $into, '--format', 'wav', '--bits', '24', '--pieces', 'chapters', '--each',
        '--de-emphasis',
        '--name', 'track {track}', '--json');
    expect(array_column($each['results'], 'action'))->toBe(['kept', 'remade', 'kept']);
    $second = Signal::decodeFile($each['results'][1]['path']);
    expect($level($second[0], 10_000.0, 11_025))->toEqualWithDelta($level($got[0], 10_000.0, 55_125), 0.01);
});

it('writes a sheet that says again what the files say', function () {
    $tags = fn (int $track, string $title, string $artist): Tags => Tags::none()->with(TagField::Title, $title)->with(TagField::Artist,
        $artist)
        ->with(TagField::Album, 'Steam "day"')->with(TagField::AlbumArtist, 'Wrenfield Brass')->with(TagField::Isrc,
            "ZZ-WRN-26-0000$track");
    $text = SheetWriter::text([['01 Gate march.wav', $tags(1, 'Gate march', 'Wrenfield Brass')], ['02 Waltz.wav', $tags(2, "Lift\nwaltz",
        'Keeper')]]);
    $samples = [sectors(5, 1), sectors(9, 2)];
    $wave = fn (string $data): string => 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, 44_100, 176_400, 4,
        16).'data'
        .pack('V', strlen($data)).$data;
    $reading = Reader::read(disc(['day.cue' => $text, '01 Gate march.wav' => $wave($samples[0]), '02 Waltz.wav' => $wave($samples[1])]));
    expect(array_map(fn ($one): array => [$one->title, $one->disc->isrc, round($one->starts * 75)], $reading->chapters))
        ->toEqual([['Gate march', 'ZZWRN2600001', 0.0], ['Keeper – Lift waltz', 'ZZWRN2600002', 5.0]])
        ->and($reading->tags->values())->toMatchArray(['album' => "Steam 'day'", 'album_artist' => 'Wrenfield Brass'])
        ->and($reading->sound()[0]->timeline->samples())->toBe(14 * 588);
});

it('takes no harm of a text of the disc that is damaged', function () {
    mt_srand(16);
    $sheet = "CDTEXTFILE \"t.cdt\"\nFILE \"a.bin\" BINARY\nTRACK 01 AUDIO\nINDEX 01 00:00:00\n";
    for ($time = 0; $time < 200; $time++) {
        $text = '';
        for ($pack = mt_rand(0, 8); $pack > 0; $pack--) {
            $text .= substr(textPack([0x80, 0x81, 0x82, 0x8E, mt_rand(0, 255)][mt_rand(0, 4)], mt_rand(0, 255), $pack, mt_rand(0, 255),
                random_bytes(12)), 0, 16)."\0\0";
        }
        $reading = Reader::read(disc(['a.cue' => $sheet, 'a.bin' => sectors(1, 1), 't.cdt' => substr($text, 0, mt_rand(0,
            strlen($text)))]));
        expect($reading->chapters)->toHaveCount(1)->and(mb_check_encoding(json_encode($reading->toArray(), JSON_THROW_ON_ERROR), 'UTF-8'))
            ->toBeTrue();
    }
});

it('says in a sheet whatever words there are, so that it is read again as it was meant', function () {
    mt_srand(12);
    $parts = ['Gate', ' ', '"', "'", '\\', "\t", "\n", 'FILE', 'TRACK 09 AUDIO', 'INDEX 01 00:00:00', 'é', '船', 'REM', '%', ';', '-', '01'];
    $word = fn (): string => trim(implode('', array_map(fn (): string => $parts[mt_rand(0, count($parts) - 1)], range(1, mt_rand(1, 6)))));
    // What a sheet cannot hold: quotation marks, and breaks of lines.
    $held = fn (string $text): string => str_replace('"', "'", (string) preg_replace('/\s+/u', ' ', $text));
    for ($try = 0; $try < 60; $try++) {
        $tracks = array_map(fn (int $number): array => [$number.' '.str_replace(["\n", "\t", '"'], '', $word()).'.wav',
            array_map(fn (): string => $word(), [TagField::Title->value => 0, TagField::Artist->value => 0, TagField::Composer->value => 0])], range(1, mt_rand(2, 99)));
        $tags = fn (array $values): Tags => array_reduce(array_keys($values), fn (Tags $all, string $field): Tags => $values[$field] === ''
            ? $all
            : $all->with(TagField::from($field), $values[$field]), Tags::none());
        $text = SheetWriter::text(array_map(fn (array $one): array => [$one[0], $tags($one[1])], $tracks));
        expect(CueSheet::isOne($text))->toBeTrue();
        $sheet = CueSheet::parse($text);
        expect(array_map(fn ($one): array => [$one->number, $one->file, $one->frames, $one->title, $one->performer, $one->songwriter],
            $sheet->tracks))
            ->toBe(array_map(fn (int $index): array => [$index + 1, $index, 0, ...array_map($held, array_values($tracks[$index][1]))],
                array_keys($tracks)))
            ->and(array_column($sheet->files, 0))->toBe(array_map(fn (array $one): string => $held($one[0]), $tracks));
    }
});

it('writes no sheet of what no disc can hold', function (array $options, int $seconds, string $says) {
    $into = Scratch::folder();
    $source = Scratch::write('Band.wav', Signal::wave([array_fill(0, 48_000 * $seconds, 0.25), array_fill(0, 48_000 * $seconds, -0.25)],
        SampleFormat::signed(16), 48_000));
    [$status, , $error] = octavox('make', $source, '--into', $into, '--disc-sheet', 'Band.cue', ...$options);
    // It is said before anything is made.
    expect($status)->toBe($says === '' ? 0 : 1)->and(is_file($into.'/Band.cue'))->toBe($says === '')->and(count(scandir($into)) > 2)
        ->toBe($says === '')->and($says === '' ? $error === '' : str_contains($error, $says))
        ->toBeTrue($error);
})->with([
    'as a disc has it' => [['--format', 'wav', '--rate', '44100'], 1, ''],
    'another rate' => [['--format', 'wav'], 1, '44'],
    'more bits' => [['--format', 'wav', '--rate', '44100', '--bits', '24'], 1, '16'],
    'one channel' => [['--format', 'wav', '--rate', '44100', '--layout', 'mono'], 1, 'two channels'],
    'another format' => [['--format', 'flac', '--rate', '44100'], 1, 'WAV'],
    'several folders' => [['--format', 'wav', '--rate', '44100', '--pieces', '0-0.5,0.5-1', '--each', '--name', '{piece}/{stem}'], 1,
        'several folders'],
    'a hundred tracks' => [['--format', 'wav', '--rate', '44100', '--pieces', implode(',', array_map(fn (int $index): string => sprintf('%.2f-%.2f', $index / 100, ($index + 1) / 100), range(0, 99))), '--each'], 1, '99'],
    'as many as it takes' => [['--format', 'wav', '--rate', '44100', '--pieces', implode(',', array_map(fn (int $index): string => sprintf('%.2f-%.2f', $index / 100, ($index + 1) / 100), range(0, 98))), '--each'], 1, ''],
]);

it('names a sheet as results are named where one is there', function (string $exists, array $sheets, string $named) {
    $into = Scratch::folder();
    $source = Scratch::write('Band.wav', Signal::wave([array_fill(0, 44_100, 0.25), array_fill(0, 44_100, -0.25)],
        SampleFormat::signed(16), 44_100));
    $words = ['make', $source, '--into', $into, '--disc-sheet', 'Band.cue', '--format', 'wav', '--json', '--exists', $exists];
    [$first, $said] = octavox(...$words);
    [$status, $again] = octavox(...$words);
    expect([$first, $status])->toBe([0, 0])->and($said['sheet'])->toBe("$into/Band.cue")
        ->and(array_map(basename(...), glob("$into/*.cue")))->toBe($sheets)
        ->and($again['sheet'] ?? null)->toBe($exists === 'skip' ? null : "$into/$sheets[0]")
        ->and(file_get_contents("$into/$sheets[0]"))->toContain("FILE \"$named\"")
        ->and(array_filter(scandir($into), fn (string $name): bool => str_ends_with($name, '.part')))->toBe([]);
})->with([
    'numbers' => ['number', ['Band 2.cue', 'Band.cue'], 'Band 2.wav'],
    'replaces' => ['replace', ['Band.cue'], 'Band.wav'],
    'leaves' => ['skip', ['Band.cue'], 'Band.wav'],
]);

it('makes what was planned of a sheet before its image counted', function () {
    $sheet = disc(['Band.cue' => SHEET, 'Band.bin' => sectors(400, 3)]);
    $into = Scratch::folder();
    $reading = Reader::read($sheet);
    expect($reading->bytes)->toBe(filesize($sheet) + 400 * 2352);
    $spec = Spec::sound(Outputs::named('wav'), RateControl::none(), $into);
    $former = array_replace($reading->toArray(), ['bytes' => filesize($sheet)]);
    $made = (new Maker)->make(Planning::plan(Reading::fromArray($former), $spec), 'former');
    expect($made->receipt?->samples)->toBe(400 * 588);
    $other = array_replace($reading->toArray(), ['bytes' => $reading->bytes + 2352]);
    expect(fn () => (new Maker)->make(Planning::plan(Reading::fromArray($other), $spec), 'other'))->toThrow(SourceChanged::class);
});

it('fills in from the text of a disc what its sheet does not say, and believes packs without a sum', function () {
    $bare = fn (string $pack): string => substr($pack, 0, 16)."\0\0";
    $ofBlock = function (string $pack, int $bits): string {
        $pack[3] = chr(ord($pack[3]) | $bits);

        return substr($pack, 0, 16)."\0\0";
    };
    $sheet = fn (string $text): array => array_map(fn ($one): array => [$one->title, $one->performer, $one->songwriter, $one->isrc],
        (function () use ($text): array {
            $sheet = CueSheet::parse("FILE a.bin BINARY\nTRACK 01 AUDIO\nTITLE \"Of the sheet\"\nINDEX 01 00:00:00\nTRACK 02 AUDIO\nISRC ZZWRN2600009\nINDEX 01 00:01:00\n");
            DiscText::into($sheet, $text);

            return $sheet->tracks;
        })());
    $titles = str_split("Day\0Gate\0Waltz\0", 12);
    $codes = textPack(0x8E, 1, 0, 0, 'ZZWRN2600001').textPack(0x8E, 1, 1, 12, "\0ZZWRN260000").textPack(0x8E, 2, 2, 11, "2\0");
    expect($sheet($bare(textPack(0x80, 0, 0, 0, $titles[0])).$bare(textPack(0x80, 2, 1, 3, $titles[1]))))
        ->toBe([['Of the sheet', '', '', ''], ['Waltz', '', '', 'ZZWRN2600009']])
        // The sheet's own code stays; one that is none is left out.
        ->and($sheet($codes))->toBe([['Of the sheet', '', '', 'ZZWRN2600001'], ['', '', '', 'ZZWRN2600009']])
        ->and($sheet(textPack(0x8E, 1, 0, 0, "nothing\0")))->toBe([['Of the sheet', '', '', ''], ['', '', '', 'ZZWRN2600009']])
        ->and($sheet(textPack(0x82, 1, 0, 0, "Ann\0Ben\0")))->toBe([['Of the sheet', '', 'Ann', ''], ['', '', 'Ben', 'ZZWRN2600009']])
        // Words of another language, letters of two bytes, kinds that say nothing, tracks that are not there.
        ->and($sheet($ofBlock(textPack(0x80, 2, 0, 0, "Other\0"), 0x10).$ofBlock(textPack(0x80, 2, 0, 0, "Wide\0"), 0x80)
            .textPack(0x87, 2, 0, 0, "Genre\0").textPack(0x80, 77, 0, 0, "Nowhere\0").'too short'))->toBe([['Of the sheet', '', '', ''],
                ['', '', '', 'ZZWRN2600009']])
        // A length before the packs.
        ->and($sheet("\0\x14\0\0".textPack(0x80, 2, 0, 0, "Waltz\0")))->toBe([['Of the sheet', '', '', ''], ['Waltz', '', '',
            'ZZWRN2600009']]);
});
