<?php

declare(strict_types=1);

use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\IsoMedia\MovieStream;
use Octavox\Core\Container\IsoMedia\SpeakerBox;
use Octavox\Core\Container\IsoMedia\StreamTrack;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A sound entry of version 0: ISO/IEC 14496-12, 12.2.3. */
function soundEntry(string $type, int $channels, int $bits, int $rate, string $more = ''): string
{
    return Signal::box($type,
        str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 8).pack('n2', $channels, $bits).pack('nnN', 0, 0, $rate << 16).$more);
}

/**
 * One of version 2, whose size, rate and flags are stated at length: QuickTime File Format Specification, "Sound Sample Description V2".
 */
function longEntry(int $channels, int $bits, float $rate, int $flags): string
{
    return Signal::box('lpcm', str_repeat("\0", 6).pack('n', 1).pack('nnN', 2, 0, 0).pack('n4N', 3, 16, 0xFFFE, 0, 0x10000)
        .pack('N', 72).pack('E', $rate).pack('N6', $channels, 0x7F000000, $bits, $flags, $channels * $bits / 8, 1));
}

/** Within `wave`: whether the lowest byte stands first. */
function little(bool $little): string
{
    return Signal::box('wave', Signal::box('frma', 'xxxx').Signal::box('enda', pack('n', $little ? 1 : 0)).pack('N2', 8, 0));
}

function described(int $objectType, string $config = ''): string
{
    $part = fn (int $tag, string $body): string => chr($tag).chr(strlen($body)).$body;

    return Signal::box('esds', "\0\0\0\0".$part(3, "\0\1\0".$part(4, chr($objectType)."\x15\0\0\0".pack('N2', 0, 0)
        .($config === '' ? '' : $part(5, $config))).$part(6, "\2")));
}

/** A movie whose only track has such an entry, with so many samples of so many bytes. */
function movieOf(string $entry, string $data, int $bytesEach, int $rate, string $brand = 'qt  '): string
{
    $sink = new MemorySink;
    $track = new StreamTrack('soun', $entry, $rate, $bytesEach);
    $writer = new MovieStream($sink, $brand, [$track], Tags::none(), $rate, 4096);
    $writer->write(0, $data, intdiv(strlen($data), max(1, $bytesEach)));
    $writer->finish();

    return Scratch::write('entry.mov', $sink->bytes());
}

it('reads uncompressed sound of every description, each number as its bytes stand',
    function (string $entry, string $letter, int $bytes, float $scale) {
        $values = [0, 1, -1, 12_345, -12_345, 32_767, -32_768, 500, -7, 99];
        $data = implode('', array_map(fn (int $value): string => match ($letter) {
            'be24' => substr(pack('N', ($value << 16) & 0xFFFFFFFF), 0, 3), 'le24' => substr(pack('V', $value << 8), 0, 3),
            'u8' => chr(($value >> 8) + 128), 's8' => chr(($value >> 8) & 255),
            'E', 'e', 'G', 'g' => pack($letter, $value / 32_768),
            default => pack($letter, ($scale > 40_000 ? $value << 16 : $value) & ($scale > 40_000 ? 0xFFFFFFFF : 0xFFFF)),
        }, $values));
        $path = movieOf($entry, $data, $bytes, 48_000);
        $expected = array_map(fn (int $value): float => in_array($letter, ['u8', 's8'], true) ? ($value >> 8) / 128
            : $value / 32_768, $values);
        expect(Reader::read($path)->sound()[0]->sound->rate)->toBe(48_000);
        foreach (Signal::decodeFile($path)[0] as $index => $sample) {
            expect($sample)->toEqualWithDelta($expected[$index], 1e-7);
        }
        expect(count(Signal::decodeFile($path)[0]))->toBe(10);
    })->with([
        'sowt' => [fn () => soundEntry('sowt', 1, 16, 48_000), 'v', 2, 32_768.0],
        'twos' => [fn () => soundEntry('twos', 1, 16, 48_000), 'n', 2, 32_768.0],
        'twos of 8 bits' => [fn () => soundEntry('twos', 1, 8, 48_000), 's8', 1, 128.0],
        'raw of 8 bits' => [fn () => soundEntry('raw ', 1, 8, 48_000), 'u8', 1, 128.0],
        'raw of 16 bits' => [fn () => soundEntry('raw ', 1, 16, 48_000), 'n', 2, 32_768.0],
        'no name' => [fn () => soundEntry("\0\0\0\0", 1, 8, 48_000), 'u8', 1, 128.0],
        'in24' => [fn () => soundEntry('in24', 1, 16, 48_000), 'be24', 3, 0.0],
        'in24, little' => [fn () => soundEntry('in24', 1, 16, 48_000, little(true)), 'le24', 3, 0.0],
        'in24, told to be big' => [fn () => soundEntry('in24', 1, 16, 48_000, little(false)), 'be24', 3, 0.0],
        'in32' => [fn () => soundEntry('in32', 1, 16, 48_000), 'N', 4, 2 ** 31],
        'in32, little' => [fn () => soundEntry('in32', 1, 16, 48_000, little(true)), 'V', 4, 2 ** 31],
        'fl32' => [fn () => soundEntry('fl32', 1, 16, 48_000), 'G', 4, 1.0],
        'fl32, little' => [fn () => soundEntry('fl32', 1, 16, 48_000, little(true)), 'g', 4, 1.0],
        'fl64' => [fn () => soundEntry('fl64', 1, 16, 48_000), 'E', 8, 1.0],
        'fl64, little' => [fn () => soundEntry('fl64', 1, 16, 48_000, little(true)), 'e', 8, 1.0],
        'lpcm, float' => [fn () => longEntry(1, 32, 48_000.0, 1 | 8), 'g', 4, 1.0],
        'lpcm, float, big' => [fn () => longEntry(1, 64, 48_000.0, 1 | 2 | 8), 'E', 8, 1.0],
        'lpcm, 16 bits' => [fn () => longEntry(1, 16, 48_000.0, 4 | 8), 'v', 2, 32_768.0],
        'lpcm, 24 bits, big' => [fn () => longEntry(1, 24, 48_000.0, 2 | 4 | 8), 'be24', 3, 0.0],
        'lpcm, 32 bits' => [fn () => longEntry(1, 32, 48_000.0, 4 | 8), 'V', 4, 2 ** 31],
        'lpcm, 8 bits without a sign' => [fn () => longEntry(1, 8, 48_000.0, 8), 'u8', 1, 128.0],
        'ipcm, big' => [fn () => soundEntry('ipcm', 1, 16, 48_000, Signal::box('pcmC', "\0\0\0\0\0\x18")), 'be24', 3, 0.0],
        'ipcm, little' => [fn () => soundEntry('ipcm', 1, 16, 48_000, Signal::box('pcmC', "\0\0\0\0\1\x10")), 'v', 2, 32_768.0],
        'fpcm' => [fn () => soundEntry('fpcm', 1, 16, 48_000, Signal::box('pcmC', "\0\0\0\0\1\x20")), 'g', 4, 1.0],
        'fpcm of 64 bits, big' => [fn () => soundEntry('fpcm', 1, 16, 48_000, Signal::box('pcmC', "\0\0\0\0\0\x40")), 'E', 8, 1.0],
    ]);

it('names every codec by what its entry says', function (string $entry, string $label, int $rate, int $channels) {
    $sound = Reader::read(movieOf($entry, str_repeat('x', 2048), 64, 48_000, 'isom'))->sound()[0]->sound;
    expect([CodecModules::describe($sound), $sound->rate, $sound->channels()])->toBe([$label, $rate, $channels]);
})->with([
    'layer III' => [fn () => soundEntry('.mp3', 2, 16, 44_100), 'MP3', 44_100, 2],
    'layer III by its number' => [fn () => soundEntry("ms\0\x55", 1, 16, 22_050), 'MP3', 22_050, 1],
    'layer II' => [fn () => soundEntry('.mp2', 2, 16, 48_000), 'MPEG Layer II', 48_000, 2],
    'AC-3 of 5.1' => [fn () => soundEntry('ac-3', 2, 16, 48_000,
        Signal::box('dac3', substr(pack('N', 8 << 17 | 7 << 11 | 1 << 10 | 14 << 5), 1))), 'AC-3', 48_000, 6],
    'AC-3 of 2.1' => [fn () => soundEntry('ac-3', 2, 16, 48_000, Signal::box('dac3', substr(pack('N', 8 << 17 | 2 << 11 | 1 << 10), 1))),
        'AC-3', 48_000, 3],
    'E-AC-3' => [fn () => soundEntry('ec-3', 6, 16, 48_000), 'E-AC-3', 48_000, 6],
    'DTS' => [fn () => soundEntry('dtsc', 6, 16, 48_000), 'DTS', 48_000, 6],
    'µ-law' => [fn () => soundEntry('ulaw', 1, 16, 8000), 'µ-law PCM', 8000, 1],
    'A-law' => [fn () => soundEntry('alaw', 2, 16, 8000), 'A-law PCM', 8000, 2],
    'AMR' => [fn () => soundEntry('samr', 2, 16, 48_000), 'AMR-NB', 8000, 1],
    'AMR, wide' => [fn () => soundEntry('sawb', 2, 16, 48_000), 'AMR-WB', 16_000, 1],
    'MPEG-4 by object type, layer III' => [fn () => soundEntry('mp4a', 2, 16, 44_100, described(0x6B)), 'MP3', 44_100, 2],
    'MPEG-2 layer III' => [fn () => soundEntry('mp4a', 2, 16, 24_000, described(0x69)), 'MP3', 24_000, 2],
    'AC-3 by object type' => [fn () => soundEntry('mp4a', 6, 16, 48_000, described(0xA5)), 'AC-3', 48_000, 6],
    'E-AC-3 by object type' => [fn () => soundEntry('mp4a', 6, 16, 48_000, described(0xA6)), 'E-AC-3', 48_000, 6],
    'DTS by object type' => [fn () => soundEntry('mp4a', 6, 16, 48_000, described(0xA9)), 'DTS', 48_000, 6],
    'Opus by object type' => [fn () => soundEntry('mp4a', 2, 16, 44_100, described(0xAD)), 'Opus', 48_000, 2],
    'Vorbis by object type' => [fn () => soundEntry('mp4a', 2, 16, 44_100, described(0xDD)), 'Vorbis', 44_100, 2],
    'AAC' => [fn () => soundEntry('mp4a', 2, 16, 48_000, described(0x40, "\x11\x90")), 'AAC-LC', 48_000, 2],
    'AAC, which the entry tells wrongly' => [fn () => soundEntry('mp4a', 2, 16, 48_000, described(0x40, "\x12\x08")), 'AAC-LC', 44_100, 1],
    'a type nobody knows' => [fn () => soundEntry('mp4a', 2, 16, 48_000, described(0xE1)), 'MPEG-4 object type 0xE1', 48_000, 2],
    'a name nobody knows' => [fn () => soundEntry("zz\x01z", 2, 16, 48_000), '“zz?z”', 48_000, 2],
]);

it('refuses protected sound in one sentence', function (string $type) {
    $reading = Reader::read(movieOf(soundEntry($type, 2, 16, 48_000), str_repeat('x', 2048), 64, 48_000, 'isom'));
    expect(fn () => Planning::plan($reading, Spec::sound(Outputs::named('wav'), RateControl::none(), '/x')))
        ->toThrow(CodecNotDecodable::class, 'protected against copying');
})->with(['enca', 'drms']);

it('writes and reads which channel of PCM is which in MP4', function (Layout $layout, string $positions) {
    $box = SpeakerBox::write($layout);
    $whole = $positions === '' ? '' : pack('N', 14 + intdiv(strlen($positions), 2)).'chnl'."\0\0\0\0\1\0".hex2bin($positions);
    expect(bin2hex($box))->toBe(bin2hex($whole));
    if ($box !== '') {
        $read = SpeakerBox::read(new Cursor(substr($box, 12)), strlen($box) - 12);
        expect($read?->letters())->toBe($layout->letters());
    }
})->with([
    'stereo' => [Layout::stereo(), ''],
    'no places' => [Layout::undeclared(6), ''],
    '5.1' => [Layout::fiveOne(), '000102030405'],
    '5.1 with its surrounds in the back' => [Layout::fromMask(0x3F, 6), '000102030809'],
    '7.1' => [Layout::sevenOne(), '0001020308090d0e'],
]);

it('takes strange words of speakers for none', function (string $content) {
    expect(SpeakerBox::read(new Cursor($content), strlen($content)))->toBeNull();
})->with(['', "\1", "\1\0", "\2\0\1\2", "\1\6\0\0\0\0\0\0\0\0", "\1\0".str_repeat("\0", 100)]);
