<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\Findings\AnotherRecording;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** CRC-32 of Ogg: RFC 3533, 6, header_checksum; generator 0x04C11DB7, nothing reflected. */
function oggSum(string $page): int
{
    static $table = null;
    $table ??= array_map(function (int $byte): int {
        $sum = $byte << 24;
        for ($bit = 0; $bit < 8; $bit++) {
            $sum = ($sum & 0x80000000) !== 0 ? ($sum << 1 ^ 0x04C11DB7) & 0xFFFFFFFF : $sum << 1;
        }

        return $sum;
    }, range(0, 255));
    $sum = 0;
    foreach (unpack('C*', $page) as $byte) {
        $sum = ($sum << 8 & 0xFFFFFFFF) ^ $table[($sum >> 24) ^ $byte];
    }

    return $sum;
}

/** @param  list<int>  $lacing */
function oggPage(int $flags, int $granule, int $serial, int $sequence, array $lacing, string $body): string
{
    $page = "OggS\0".chr($flags).pack('PVVV', $granule, $serial, $sequence, 0).chr(count($lacing)).pack('C*', ...$lacing).$body;

    return substr_replace($page, pack('V', oggSum($page)), 22, 4);
}

/** @return list<array{int, int, int, int, list<int>, string}> flags, granule, serial, sequence, lacing, body of each page */
function oggPages(string $bytes): array
{
    $pages = [];
    for ($at = 0; $at < strlen($bytes); $at += 27 + $count + $length) {
        $head = unpack('Cflags/Pgranule/Vserial/Vsequence/Vsum/Ccount', $bytes, $at + 5);
        $count = $head['count'];
        $lacing = array_values(unpack("C$count", $bytes, $at + 27));
        $length = array_sum($lacing);
        $pages[] = [$head['flags'], $head['granule'], $head['serial'], $head['sequence'], $lacing, substr($bytes, $at + 27 + $count,
            $length)];
    }

    return $pages;
}

/** The same file under another serial number, its pages cut anew where asked: one packet a page at most. */
function oggAgain(string $bytes, int $serial): string
{
    return implode('', array_map(fn (array $page): string => oggPage($page[0], $page[1], $serial, $page[3], $page[4], $page[5]),
        oggPages($bytes)));
}

/** @param  list<list<float>>  $sound */
function oggOf(string $format, array $sound, int $rate = 48_000): string
{
    $wave = Scratch::write('for ogg.wav', Signal::wave($sound, SampleFormat::signed(16), $rate));
    $spec = Spec::sound(Outputs::named($format), RateControl::near(96), Scratch::folder());

    return (string) file_get_contents((new Maker)->make(Planning::plan(Reader::read($wave), $spec), 'ogg')->path);
}

it('writes pages whose sums are right, in order, the first and the last marked', function (string $format) {
    $pages = oggPages($bytes = oggOf($format, [Signal::sweep(120_000), Signal::sweep(120_000)]));
    $again = implode('', array_map(fn (array $page): string => oggPage(...$page), $pages));
    expect($again === $bytes)->toBeTrue()->and(array_column($pages, 3))->toBe(range(0, count($pages) - 1))
        ->and(array_unique(array_column($pages, 2)))->toHaveCount(1)->and($pages[0][0])->toBe(2)->and($pages[count($pages) - 1][0] & 4)
        ->toBe(4);
    $granules = array_values(array_filter(array_column($pages, 1), fn (int $granule): bool => $granule >= 0));
    $sorted = $granules;
    sort($sorted);
    expect($granules)->toBe($sorted);
})->with(['opus', 'vorbis']);

it('plays any chain as one recording, and says what it leaves out', function (string $format, int $seed) {
    mt_srand($seed);
    $chain = '';
    $expected = [];
    $others = 0;
    for ($link = 0, $links = mt_rand(2, 5); $link < $links; $link++) {
        $sound = Signal::sweep(mt_rand(9000, 40_000), 0.4, 0.000002 * ($link + 1));
        $chain .= oggAgain(oggOf($format, [$sound]), 100 + $link);
        array_push($expected, ...$sound);
        if ($link > 0 && mt_rand(0, 1) === 1) {
            // A recording of another codec between them.
            $chain .= oggAgain(oggOf($format === 'opus' ? 'vorbis' : 'opus', [Signal::sweep(9000)]), 900 + $link);
            $others++;
        }
    }
    $path = Scratch::write('chain.ogg', $chain);
    $reading = Reader::read($path);
    $decoded = Signal::decodeFile($path)[0];
    expect($reading->sound())->toHaveCount(1)->and($reading->sound()[0]->timeline->samples())->toBe(count($expected))
        ->and(count($decoded))->toBe(count($expected))->and(Signal::difference($expected, $decoded, 2000, count($expected) - 2000))
        ->toBeLessThan(-12.0)
        ->and(count(array_filter($reading->findings, fn ($finding): bool => $finding->kind instanceof AnotherRecording)))
        ->toBe($others);
})->with(['opus', 'vorbis'])->with([1, 2, 3, 4]);

it('takes streams side by side as tracks, pictures and unknown ones among them', function () {
    $first = oggPages(oggOf('opus', [Signal::sweep(48_000)]));
    $second = oggPages(oggOf('vorbis', [Signal::sweep(60_000), Signal::sweep(60_000)]));
    $picture = oggPage(2, 0, 30, 0, [42], "\x80theora".str_repeat("\3", 35));
    $strange = oggPage(2, 0, 40, 0, [20], 'fishead'.str_repeat("\0", 13));
    $pages = [[2, 0, 10, 0, $first[0][4], $first[0][5]], [2, 0, 20, 0, $second[0][4], $second[0][5]]];
    $bytes = implode('', array_map(fn (array $page): string => oggPage(...$page), $pages)).$picture.$strange;
    for ($index = 1; $index < max(count($first), count($second)); $index++) {
        foreach ([[10, $first], [20, $second]] as [$serial, $own]) {
            $bytes .= isset($own[$index]) ? oggPage($own[$index][0], $own[$index][1], $serial, $index, $own[$index][4],
                $own[$index][5]) : '';
        }
    }
    $reading = Reader::read(Scratch::write('side by side.ogg', $bytes));
    expect(array_map(fn ($track) => $track->kind, $reading->tracks))->toBe([TrackKind::Sound, TrackKind::Sound, TrackKind::Picture])
        ->and($reading->sound()[0]->timeline->samples())->toBe(48_000)->and($reading->sound()[1]->timeline->samples())->toBe(60_000)
        ->and($reading->picture()->picture->label)->toBe('Theora');
});

it('finds its way past what is damaged', function (string $format, Closure $damage) {
    $sound = Signal::sweep(240_000, 0.4, 0.0000008);
    $bytes = oggOf($format, [$sound]);
    $path = Scratch::write('damaged.ogg', $damage($bytes));
    $decoded = Signal::decodeFile($path)[0];
    expect(count($decoded))->toBe(Reader::read($path)->sound()[0]->timeline->samples())->and(count($decoded))->toBeGreaterThan(150_000)
        ->toBeLessThan(240_001)
        ->and(Signal::difference($sound, $decoded, 3000, 40_000))->toBeLessThan(-12.0);
})->with(['opus', 'vorbis'])->with([
    'text between two pages' => [function (string $bytes): string {
        $at = strpos($bytes, 'OggS', intdiv(strlen($bytes), 2));

        return substr_replace($bytes, str_repeat('Wrenfield ', 30), $at, 0);
    }],
    'the end missing' => [fn (string $bytes): string => substr($bytes, 0, (int) (strlen($bytes) * 0.9))],
    'a page missing' => [function (string $bytes): string {
        $from = strpos($bytes, 'OggS', intdiv(strlen($bytes), 2));

        return substr_replace($bytes, '', $from, strpos($bytes, 'OggS', $from + 4) - $from);
    }],
    'something behind the end' => [fn (string $bytes): string => $bytes.str_repeat('behind', 500)],
]);

it('refuses an Ogg file without sound', function (string $bytes) {
    expect(fn () => Reader::read(Scratch::write('x.ogg', $bytes)))->toThrow(NoTracks::class);
})->with(['a stream nobody knows' => [fn () => oggPage(2, 0, 1, 0, [30], str_repeat('x', 30))],
    'no begin' => [fn () => oggPage(0, 0, 1, 5, [30], str_repeat('x', 30))]]);
