<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Disc\DiscTitle;
use Octavox\Core\Disc\DiscUnusable;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Disc\VideoDisc;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Stated;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\VideoDiscWriter;
use Octavox\Core\Tests\Support\ChoirDisc;
use Octavox\Core\Tests\Support\Scratch;

/** The disc in one of the ways in which it can lie on a machine; file systems are made by programs of other people. */
function choir(string $way): string
{
    static $folder = null;
    $folder = $folder !== null && is_dir($folder) ? $folder : ChoirDisc::folder();
    $image = Scratch::path(bin2hex(random_bytes(4)).'.iso');
    $quiet = fn (string $command): bool => exec($command.' 2>&1', $said, $status) !== false && $status === 0
        ? true : throw new RuntimeException(implode("\n", $said));
    switch ($way) {
        case 'folder':
            return $folder.'/VIDEO_TS/VIDEO_TS.IFO';
        case 'folder in small letters, sound and pictures in three files':
            $other = Scratch::folder();
            foreach (glob($folder.'/VIDEO_TS/*') as $path) {
                copy($path, $other.'/'.strtolower(basename($path)));
            }
            $parts = str_split((string) file_get_contents($other.'/vts_01_1.vob'), 333 * 2048);
            foreach ([$parts[0], $parts[1], implode('', array_slice($parts, 2))] as $index => $part) {
                file_put_contents(sprintf('%s/vts_01_%d.vob', $other, $index + 1), $part);
            }

            return $other.'/video_ts.ifo';
        case 'image of ours':
            $sink = FileSink::create($image);
            ChoirDisc::writer()->image($sink);
            $sink->close();

            return $image;
        case 'genisoimage, both file systems':
            $quiet('genisoimage -quiet -dvd-video -udf -V '.ChoirDisc::LABEL.' -o '.$image.' '.escapeshellarg($folder));

            return $image;
        case 'genisoimage, UDF alone':
            $quiet('genisoimage -quiet -dvd-video -udf -V '.ChoirDisc::LABEL.' -o '.$image.' '.escapeshellarg($folder));
            $file = fopen($image, 'r+b');
            for ($sector = 16; $sector < 19; $sector++) {
                fseek($file, $sector * 2048);
                if (str_contains((string) fread($file, 8), 'CD001')) {
                    fseek($file, $sector * 2048);
                    fwrite($file, str_repeat("\0", 2048));
                }
            }

            return $image;
        default:
            $quiet('xorriso -as mkisofs -quiet -V '.ChoirDisc::LABEL.' -o '.$image.' '.escapeshellarg($folder));

            return $image;
    }
}

/** @return list<array{string, string}> names, and the sums of the samples, of what was made, in the order of their names */
function madeOfDisc(string $disc, string ...$options): array
{
    $into = Scratch::folder();
    [$status] = octavox('make', $disc, '--into', $into, '--json', ...$options);
    expect($status)->toBe(0);
    $made = glob($into.'/*');
    sort($made);

    return array_map(function (string $path): array {
        $bytes = (string) file_get_contents($path);
        $at = (int) strpos($bytes, 'data');

        return [basename($path), md5(substr($bytes, $at + 8, unpack('V', $bytes, $at + 4)[1]))];
    }, $made);
}

$ways = ['folder', 'folder in small letters, sound and pictures in three files', 'image of ours', 'genisoimage, both file systems',
    'genisoimage, UDF alone', 'xorriso'];

it('reads every title, chapter and sound track of a disc, to the sample', function (string $way) {
    $path = choir($way);
    [, $said] = octavox('read', $path, '--json');
    $facts = array_map(fn (array $one): array => [$one['stated'], $one['container'], array_map(fn (array $track): array => [$track['codec'],
        $track['language'], $track['samples'] ?? null], $one['tracks']), $one['chapters']], $said['sources']);
    $chapter = fn (float $starts, int $number): array => ['starts' => $starts, 'title' => "Chapter $number"];
    // 185 pictures of 1,920 frames; in AC-3, whose recordings overlap at the third cell, whole frames that end within one of it.
    expect($facts)->toEqual([
        ['title:1', 'dvd-video', [['mpeg2-video', null, null], ['pcm', 'eng', 185 * 1920], ['ac3', 'deu', 232 * 1536]],
            [$chapter(0, 1), $chapter(3, 2), $chapter(5.4, 3)]],
        ['title:2', 'dvd-video', [['mpeg2-video', null, null], ['pcm', 'eng', 30 * 1920], ['ac3', 'deu', 38 * 1536]], [$chapter(0, 1)]],
    ]);
    $made = madeOfDisc($path, '--format', 'wav', '--track', 'en');
    expect(array_column($made, 1))->toBe([md5(ChoirDisc::title(1)), md5(ChoirDisc::title(2))])
        ->and($made[0][0])->toEndWith(', title 1.wav')->and($made[1][0])->toEndWith(', title 2.wav');
    $chapters = madeOfDisc($path, '--format', 'wav', '--track', 'en', '--disc-title', '1', '--pieces', 'chapters', '--each', '--name',
        '{title}');
    $whole = ChoirDisc::title(1);
    $part = fn (int $from, int $until): string => md5(substr($whole, $from * ChoirDisc::EACH * 4,
        ($until - $from) * ChoirDisc::EACH * 4));
    expect($chapters)->toBe([['Chapter 1 01.wav', $part(0, 75)], ['Chapter 2 02.wav', $part(75, 135)],
        ['Chapter 3 03.wav', $part(135, 185)]]);
})->with($ways);

it('copies the packets of a disc as they are, chapter by chapter, and its picture', function () {
    $path = choir('xorriso');
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $path, '--into', $into, '--format', 'ac3', '--track', 'de', '--disc-title', '1', '--pieces',
        'chapters', '--each', '--json');
    expect($status)->toBe(0)->and(array_column($said['results'], 'action'))->toBe(['kept', 'kept', 'kept']);
    foreach ($said['results'] as $one) {
        // Every frame of the test encoder has 2,048 bytes for 1,536 samples.
        expect(filesize($one['path']))->toBe(intdiv($one['samples'], 1536) * 2048)
            ->and(bin2hex((string) file_get_contents($one['path'], false, null, 0, 2)))->toBe('0b77');
    }
    [$status, $said] = octavox('make', $path, '--into', $into, '--format', 'mkv', '--picture', 'keep', '--track', 'all', '--disc-title',
        '2', '--json');
    expect($status)->toBe(0);
    $video = Reader::read($said['results'][0]['path']);
    expect($video->picture()->picture->seconds)->toEqualWithDelta(1.2, 0.001)->and(count($video->sound()))->toBe(2);
});

it('describes titles without opening their sound', function () {
    $titles = VideoDisc::open(FileBytes::open(choir('genisoimage, both file systems')))->titles();
    expect(array_map(fn (DiscTitle $title): array => [$title->number, round($title->seconds(), 3), $title->chapters(), $title->angles],
        $titles))->toBe([[1, 7.4, 3, 2], [2, 1.2, 1, 1]])
        ->and(array_map(fn ($sound): array => [$sound->codec->value, $sound->language, $sound->purpose, $sound->channels],
            $titles[0]->sounds))->toBe([['pcm', 'eng', '', 2], ['ac3', 'deu', 'Commentary', 2]])
        ->and((string) Stated::parse('title:2'))->toBe('title:2')
        ->and((new StatedTitle(3))->name('/a/Choir/VIDEO_TS/VIDEO_TS.IFO'))->toBe('Choir, title 3.IFO');
});

it('takes the copy of a damaged table, and says plainly what cannot be read', function () {
    $folder = ChoirDisc::folder().'/VIDEO_TS';
    $first = $folder.'/VIDEO_TS.IFO';
    file_put_contents($folder.'/VTS_01_0.IFO', str_repeat("\0", 8192));
    expect(Reader::read($first)->sound()[0]->timeline->samples())->toBe(185 * 1920);
    file_put_contents($folder.'/VTS_01_0.BUP', 'gone');
    expect(fn () => Reader::read($first))->toThrow(DiscUnusable::class, 'VTS_01_0.IFO) is missing or damaged');
    $main = (string) file_get_contents($first);
    file_put_contents($folder.'/VIDEO_TS.BUP', substr($main, 0, 2048));
    file_put_contents($first, substr($main, 0, 2048));
    expect(fn () => Reader::read($first))->toThrow(DiscUnusable::class, 'VIDEO_TS.IFO) is missing or damaged');
    expect(fn () => Reader::read(choir('xorriso'), new StatedTitle(7)))->toThrow(DiscUnusable::class, 'There is no title 7');
    $data = Scratch::folder();
    file_put_contents($data.'/readme.txt', 'nothing to hear');
    $image = Scratch::path('data.iso');
    exec('genisoimage -quiet -o '.$image.' '.$data.' 2>&1');
    [$status, $said] = octavox('read', $image, '--json');
    expect($status)->toBe(1)->and($said['error']['message'])->toContain('no video disc');
});

it('tells of a disc that is protected, and of an image that was cut short', function () {
    $image = choir('image of ours');
    $bytes = (string) file_get_contents($image);
    $cut = Scratch::write('cut.iso', substr($bytes, 0, (int) (strlen($bytes) * 0.6)));
    $reading = Reader::read($cut, new StatedTitle(1));
    expect(array_map(fn ($finding): string => $finding->code(), $reading->findings))->toContain('cut-short')
        ->and($reading->sound()[0]->timeline->samples())->toBeGreaterThan(70 * 1920)->toBeLessThan(185 * 1920);
    // PES_scrambling_control in the packets of the sound, as encrypted discs have it.
    $at = 0;
    while (($at = strpos($bytes, "\0\0\1\xBD", $at)) !== false) {
        $bytes[$at + 6] = chr(ord($bytes[$at + 6]) | 0x30);
        $at += 4;
    }
    $locked = Scratch::write('locked.iso', $bytes);
    [$status, $said] = octavox('make', $locked, '--into', Scratch::folder(), '--format', 'wav', '--json');
    expect($status)->toBe(1)->and($said['results'][0]['error']['message'])->toContain('This disc is protected');
});

it('follows no loop, and reads nothing beyond the disc', function (Closure $break) {
    $folder = ChoirDisc::folder().'/VIDEO_TS';
    $set = $break((string) file_get_contents($folder.'/VTS_01_0.IFO'));
    file_put_contents($folder.'/VTS_01_0.IFO', $set);
    file_put_contents($folder.'/VTS_01_0.BUP', $set);
    try {
        $reading = Reader::read($folder.'/VIDEO_TS.IFO', new StatedTitle(1));
        expect($reading->seconds)->toBeLessThan(60.0);
    } catch (DiscUnusable $refused) {
        expect($refused->getMessage())->not->toBe('');
    }
})->with([
    // Sector 1 has the chapters, sector 2 the program chains.
    'a chapter table that names the same chain again and again' => fn (): Closure => fn (string $set): string => substr_replace($set,
        pack('nnN', 1, 0, 2047).pack('N', 12).str_repeat(pack('nn', 1, 1), 500), 2048, 8 + 4 + 2000),
    'chains that lie before the table' => fn (): Closure => fn (string $set): string => substr_replace($set, pack('N', 0xFFFFFFF0),
        4096 + 8 + 4, 4),
    'cells beyond the disc' => fn (): Closure => function (string $set): string {
        $chain = 4096 + unpack('N', $set, 4096 + 12)[1];
        $cell = $chain + unpack('n', $set, $chain + 0xE8)[1];

        return substr_replace(substr_replace($set, pack('N', 0x7FFFFFF0), $cell + 8, 4), pack('N', 0x7FFFFFFF), $cell + 20, 4);
    },
    'cells that end before they begin' => fn (): Closure => function (string $set): string {
        $chain = 4096 + unpack('N', $set, 4096 + 12)[1];

        return substr_replace($set, pack('NNNN', 900, 0, 0, 3), $chain + unpack('n', $set, $chain + 0xE8)[1] + 8, 16);
    },
]);

it('follows no folder that contains itself', function () {
    $image = (string) file_get_contents(choir('image of ours'));
    // The record of VIDEO_TS in the root directory, sector 20, leads to the root again.
    $at = strpos($image, 'VIDEO_TS', 20 * 2048) - 33;
    $loop = substr_replace($image, pack('V', 20).pack('N', 20), $at + 2, 8);
    expect(fn () => Reader::read(Scratch::write('loop.iso', $loop)))->toThrow(DiscUnusable::class);
});

it('takes each of many chapters exactly, though the clock begins anew with every one', function () {
    $writer = new VideoDiscWriter('MANY CHAPTERS', [[4, 0x1A0, 2, 'en', 1]]);
    $frames = 0;
    $cells = [];
    $samples = [];
    for ($cell = 0; $cell < 9; $cell++) {
        $count = 3 + $cell;
        $begin = $frames;
        $sound = array_map(function (int $index) use ($begin): array {
            $frame = range(1920 * ($begin + $index), 1920 * ($begin + $index) + 1919);

            return [pack('n*', ...array_merge(...array_map(fn (int $sample): array => [$sample & 0x7FFF, -$sample & 0xFFFF], $frame))),
                3600 * $index];
        }, range(0, $count - 1));
        $cells[] = new DiscCellParts(array_fill(0, $count, "\0\0\1\xB3still"), [$sound], clock: 90_000 * (9 - $cell));
        $samples[] = [1920 * $begin, 1920 * ($begin + $count)];
        $frames += $count;
    }
    $folder = Scratch::folder();
    $writer->title($cells)->folder($folder);
    $path = "$folder/VIDEO_TS/VIDEO_TS.IFO";
    $reading = Reader::read($path, new StatedTitle(1));
    expect($reading->sound()[0]->timeline->samples())->toBe(1920 * $frames)->and($reading->chapters)->toHaveCount(9);
    $data = implode('', array_map(fn (int $sample): string => pack('v*', $sample & 0x7FFF, -$sample & 0xFFFF), range(0,
        1920 * $frames - 1)));
    $made = array_column(madeOfDisc($path, '--format', 'wav', '--pieces', 'chapters', '--each', '--name', '{piece}'), 1);
    expect($made)->toBe(array_map(fn (array $piece): string => md5(substr($data, 4 * $piece[0], 4 * ($piece[1] - $piece[0]))), $samples));
});

it('says the label of a disc as words where it is in capitals alone', function (string $label, string $words) {
    $folder = Scratch::folder();
    (new VideoDiscWriter('X', [[4, 0x1A0, 2, 'en', 1]]))->title([new DiscCellParts(array_fill(0, 5, "\0\0\1\xB3still"),
        [array_map(fn (int $index): array => [str_repeat("\0\1", 3840), 3600 * $index], range(0, 4))])])->folder("$folder");
    rename("$folder/VIDEO_TS", "$folder/inside");
    mkdir("$folder/$label");
    rename("$folder/inside", "$folder/$label/VIDEO_TS");
    $path = "$folder/$label/VIDEO_TS/VIDEO_TS.IFO";
    expect(VideoDisc::open(FileBytes::open($path))->label())->toBe($words)
        ->and(Reader::read($path, new StatedTitle(1))->tags->values()['album'])->toBe($words);
})->with([['CHOIR_EVENING_94', 'Choir Evening 94'], ['LIFT', 'Lift'], ['Choir of the Lift', 'Choir of the Lift'], ['McLean', 'McLean'],
    ['Été', 'Été']]);
