<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\JoinedBytes;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Disc\DiscFolder;
use Octavox\Core\Disc\Iso9660;
use Octavox\Core\Disc\Udf;
use Octavox\Core\Tests\Support\Scratch;

/**
 * A folder of a disc with so many files that its directory takes several sectors, and with the lengths around a sector.
 *
 * @return array{string, array<string, string>} the folder, and what each file holds, by its name on the disc
 */
function crowded(): array
{
    $folder = Scratch::folder();
    mkdir($folder.'/VIDEO_TS');
    mkdir($folder.'/AUDIO_TS');
    mt_srand(29);
    $files = [];
    foreach ([0, 1, 2047, 2048, 2049, 4096, 70_000] as $index => $length) {
        $files[sprintf('LONG_%02d.BIN', $index)] = $length === 0 ? '' : random_bytes($length);
    }
    for ($index = 0; $index < 240; $index++) {
        $files[sprintf('VTS_%02d_%d.IFO', intdiv($index, 10), $index % 10)] = 'part '.$index.str_repeat('.', mt_rand(0, 99));
    }
    foreach ($files as $name => $bytes) {
        file_put_contents($folder.'/VIDEO_TS/'.$name, $bytes);
    }

    return [$folder, $files];
}

/** The bytes of a file of a disc; null where it has none. */
function whole(?ByteSource $source): ?string
{
    return $source?->read(0, $source->size());
}

/** @param  list<array{int, int, string, int}>  $records  sector, bytes, name and flags of each: ECMA-119, 9.1 */
function directoryOf(array $records): string
{
    $bytes = '';
    foreach ($records as [$sector, $length, $name, $flags]) {
        $record = pack('VNVN', $sector, $sector, $length, $length).str_repeat("\0", 7).chr($flags)."\0\0".pack('vn', 1,
            1).chr(strlen($name)).$name;
        $record .= strlen($record) % 2 === 0 ? '' : "\0";
        $record = chr(strlen($record) + 2)."\0".$record;
        $bytes .= intdiv(strlen($bytes), 2048) !== intdiv(strlen($bytes) + strlen($record) - 1, 2048)
            ? str_repeat("\0", 2048 - strlen($bytes) % 2048).$record : $record;
    }

    return str_pad($bytes, (int) ceil(strlen($bytes) / 2048) * 2048, "\0");
}

it('finds every file of a large directory, as programs of other people write it', function (string $command, bool $hasUdf) {
    [$folder, $files] = crowded();
    $image = Scratch::path('crowded.iso');
    exec(sprintf($command, escapeshellarg($image), escapeshellarg($folder)).' 2>&1', $said, $status);
    expect($status)->toBe(0, implode("\n", $said));
    $source = FileBytes::open($image);
    $systems = array_filter([Iso9660::open($source), $hasUdf ? Udf::open($source) : null]);
    expect($systems)->toHaveCount($hasUdf ? 2 : 1);
    foreach ($systems as $system) {
        expect($system->label())->toBe('CROWDED')->and($system->file('NONE.IFO'))->toBeNull();
        foreach ($files as $name => $bytes) {
            expect(md5((string) whole($system->file($name))))->toBe(md5($bytes), $system::class.' '.$name);
        }
    }
})->with([
    'genisoimage, both file systems' => ['genisoimage -quiet -udf -V CROWDED -o %s %s', true],
    'genisoimage, long names beside' => ['genisoimage -quiet -J -R -V CROWDED -o %s %s', false],
    'xorriso' => ['xorriso -as mkisofs -quiet -iso-level 3 -V CROWDED -o %s %s', false],
]);

it('puts a file of several extents together, and keeps to what the image holds', function () {
    // ECMA-119, 9.1.6: bit 7 of the flags says that the next record goes on with the same file.
    $sectors = [18 => 'first of the file', 19 => directoryOf([[19, 2048, "\0", 2], [19, 2048, "\1", 2], [20, 2048, 'VIDEO_TS', 2]]),
        20 => directoryOf([[20, 2048, "\0", 2], [19, 2048, "\1", 2], [21, 2048, 'VTS_01_1.VOB;1', 0x80], [18, 17, 'VTS_01_1.VOB;1', 0],
            [22, 9000, 'CUT.VOB;1', 0], [4_000_000_000, 100, 'BEYOND.VOB;1', 0]]), 21 => str_repeat('a', 2048), 22 => str_repeat('z',
                2048)];
    $root = substr(directoryOf([[19, 2048, "\0", 2]]), 0, 34);
    $sectors[16] = str_pad("\1CD001\1\0".str_repeat(' ', 32).str_pad('BY HAND', 32), 156, "\0").$root;
    $sectors[17] = "\xFFCD001\1";
    $image = '';
    for ($sector = 0; $sector <= 22; $sector++) {
        $image .= str_pad($sectors[$sector] ?? '', 2048, "\0");
    }
    $disc = Iso9660::open(new MemoryBytes($image));
    expect($disc?->label())->toBe('BY HAND')
        ->and(whole($disc?->file('VTS_01_1.VOB')))->toBe(str_repeat('a', 2048).'first of the file')
        ->and(whole($disc?->file('CUT.VOB')))->toBe(str_repeat('z', 2048))
        ->and(whole($disc?->file('BEYOND.VOB')))->toBe('')
        ->and(Iso9660::open(new MemoryBytes(substr($image, 0, 16 * 2048 + 2047))))->toBeNull()
        ->and(Iso9660::open(new MemoryBytes(str_replace("\1CD001", "\1CD002", $image))))->toBeNull();
});

it('reads joined stretches as one source, wherever their borders lie', function () {
    mt_srand(5);
    $text = implode('', array_map(fn (): string => chr(mt_rand(0, 255)), range(1, 5000)));
    $parts = [];
    for ($at = 0; $at < 5000; $at += $length) {
        $length = min(5000 - $at, mt_rand(0, 3) === 0 ? 1 : mt_rand(1, 700));
        $parts[] = Stretch::in(new MemoryBytes('before'.substr($text, $at, $length).'behind'), 6, $length);
        // Stretches that hold nothing change nothing.
        $parts[] = Stretch::in(new MemoryBytes('none'), 2, 0);
    }
    $half = intdiv(count($parts), 2);
    $inner = new JoinedBytes('inner', array_slice($parts, $half));
    $joined = new JoinedBytes('whole', [...array_slice($parts, 0, $half), Stretch::in($inner, 0, $inner->size())]);
    expect($joined->size())->toBe(5000)->and($joined->name())->toBe('whole')->and($joined->bytesRead())->toBe(0);
    for ($try = 0; $try < 400; $try++) {
        $from = mt_rand(0, 5000);
        $length = mt_rand(0, 5000 - $from);
        expect(md5($joined->read($from, $length)))->toBe(md5(substr($text, $from, $length)));
    }
    expect($joined->read(5000, 0))->toBe('')
        ->and(fn () => $joined->read(4999, 2))->toThrow(BytesMissing::class)
        ->and(fn () => $joined->read(-1, 1))->toThrow(BytesMissing::class)
        ->and(fn () => $joined->read(0, PHP_INT_MAX))->toThrow(BytesMissing::class)
        ->and((new JoinedBytes('none', []))->size())->toBe(0)
        // Where they lie is told of the sources themselves, not of the join between.
        ->and(array_filter($joined->stretches(0, 5000), fn (Stretch $one): bool => $one->source instanceof JoinedBytes))->toBe([]);
});

it('takes a folder for a disc only where its first file says so', function (string $name, string $bytes, ?string $label) {
    $folder = Scratch::folder().'/Lift choir';
    $inner = str_starts_with($name, 'VIDEO_TS/') ? $folder.'/VIDEO_TS' : $folder;
    mkdir($inner, 0777, true);
    file_put_contents($inner.'/'.basename($name), $bytes);
    file_put_contents($inner.'/vts_01_0.ifo', 'table');
    expect(DiscFolder::first(scandir($inner)))->toBe(basename($name));
    $disc = DiscFolder::open(FileBytes::open($inner.'/'.basename($name)));
    expect($disc?->label())->toBe($label)->and(whole($disc?->file('VTS_01_0.IFO')))->toBe($label === null ? null : 'table')
        ->and($disc?->file('VTS_02_0.IFO'))->toBeNull()->and($disc?->file('../VTS_01_0.IFO'))->toBeNull();
})->with([
    'in its own folder' => ['VIDEO_TS/VIDEO_TS.IFO', str_pad('DVDVIDEO-VMG', 2048, "\0"), 'Lift choir'],
    'small letters, by itself' => ['video_ts.ifo', str_pad('DVDVIDEO-VMG', 4096, "\0"), 'Lift choir'],
    'shorter than a sector' => ['VIDEO_TS/VIDEO_TS.IFO', str_pad('DVDVIDEO-VMG', 2047, "\0"), null],
    'something else' => ['VIDEO_TS/VIDEO_TS.IFO', str_pad('DVDVIDEO-VTS', 2048, "\0"), null],
]);
