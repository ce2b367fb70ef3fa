<?php

declare(strict_types=1);

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\IndexMissing;
use Octavox\Core\Container\IsoMedia\ElementaryDescriptor;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

const SOME_NUMBERS = [0, 1, -1, 12_345, -12_345, 32_767, -32_768, 500, -7, 99, -20_000, 31_000];

/** The numbers as bytes of such a kind: sign, bits, order. */
function numbersAs(string $kind): string
{
    return implode('', array_map(fn (int $value): string => match ($kind) {
        's8' => chr(($value >> 8) & 255), 'u8' => chr(($value >> 8) + 128), 's16be' => pack('n', $value & 0xFFFF),
        's16le' => pack('v', $value & 0xFFFF),
        's24be' => substr(pack('N', ($value << 16) & 0xFFFFFFFF), 0, 3), 's24le' => substr(pack('V', ($value << 8) & 0xFFFFFFFF), 0, 3),
        's32be' => pack('N', ($value << 16) & 0xFFFFFFFF), 's32le' => pack('V', ($value << 16) & 0xFFFFFFFF),
        'f32be' => pack('G', $value / 32_768), 'f32le' => pack('g', $value / 32_768), 'f64be' => pack('E', $value / 32_768),
        'f64le' => pack('e', $value / 32_768), default => throw new LogicException($kind),
    }, SOME_NUMBERS));
}

/** @return list<float> what they are in sound */
function numbersIn(string $kind): array
{
    return array_map(fn (int $value): float => in_array($kind, ['s8', 'u8'], true) ? ($value >> 8) / 128 : $value / 32_768, SOME_NUMBERS);
}

/** AIFF, or AIFF-C where there is a kind of compression. */
function aiffFile(string $compression, int $bits, string $data, int $rate = 48_000, int $announced = -1, string $more = '',
    int $channels = 1): string
{
    $chunk = fn (string $name, string $body): string => $name.pack('N', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
    // An 80-bit number: 16383 is the exponent of one.
    $exponent = (int) floor(log($rate, 2));
    $extended = pack('n', 16_383 + $exponent).pack('J', $rate << (63 - $exponent));
    $frames = $announced >= 0 ? $announced : intdiv(strlen($data) * 8, max(1, $bits) * $channels);
    $common = pack('nNn', $channels, $frames, $bits).$extended.($compression === '' ? '' : $compression."\x0Anot needed\0");
    $body = ($compression === '' ? 'AIFF' : 'AIFC'.$chunk('FVER', pack('N', 0xA2805140))).$chunk('COMM', $common).$more.$chunk('SSND',
        pack('N2', 0, 0).$data);

    return Scratch::write('numbers.aiff', 'FORM'.pack('N', strlen($body)).$body);
}

/** CAF with such a description. */
function cafFile(string $format, int $flags, array $packet, string $data, int $channels = 1, string $more = '', ?int $length = null): string
{
    $chunk = fn (string $name, string $body): string => $name.pack('J', strlen($body)).$body;

    return Scratch::write('numbers.caf', 'caff'.pack('n2', 1, 0).$chunk('desc',
        pack('E', 48_000.0).$format.pack('N5', $flags, $packet[0], $packet[1], $channels, $packet[2]))
        .$more.'data'.pack('J', $length ?? 4 + strlen($data)).pack('N', 0).$data);
}

it('reads the numbers of AIFF as its kind of compression says', function (string $compression, int $bits, string $kind) {
    $decoded = Signal::decodeFile(aiffFile($compression, $bits, numbersAs($kind)));
    expect($decoded)->toHaveCount(1)->and($decoded[0])->toHaveCount(12);
    foreach (numbersIn($kind) as $index => $number) {
        expect($decoded[0][$index])->toEqualWithDelta($number, 1e-7);
    }
})->with([
    ['', 8, 's8'], ['', 16, 's16be'], ['', 24, 's24be'], ['', 32, 's32be'], ['', 20, 's24be'], ['NONE', 16, 's16be'], ['twos', 16, 's16be'],
    ['sowt', 16, 's16le'], ['sowt', 24, 's24le'], ['raw ', 8, 'u8'], ['in24', 24, 's24be'], ['in32', 32, 's32be'], ['fl32', 32, 'f32be'],
    ['FL32', 32, 'f32be'],
    ['fl64', 64, 'f64be'], ['FL64', 64, 'f64be'],
]);

it('reads the numbers of CAF as its description says', function (int $flags, int $bits, string $kind) {
    $decoded = Signal::decodeFile(cafFile('lpcm', $flags, [intdiv($bits, 8), 1, $bits], numbersAs($kind)));
    expect($decoded)->toHaveCount(1)->and($decoded[0])->toHaveCount(12);
    foreach (numbersIn($kind) as $index => $number) {
        expect($decoded[0][$index])->toEqualWithDelta($number, 1e-7);
    }
})->with([
    [0, 8, 's8'], [0, 16, 's16be'], [2, 16, 's16le'], [0, 24, 's24be'], [2, 24, 's24le'], [0, 32, 's32be'], [2, 32, 's32le'],
    [1, 32, 'f32be'], [3, 32, 'f32le'],
    [1, 64, 'f64be'], [3, 64, 'f64le'],
]);

it('names what is compressed in AIFF and CAF', function (string $path, string $label, int $channels) {
    $sound = Reader::read($path)->sound()[0]->sound;
    expect([CodecModules::describe($sound), $sound->channels()])->toBe([$label, $channels]);
})->with([
    'µ-law' => [fn () => aiffFile('ulaw', 8, str_repeat('x', 200)), 'µ-law PCM', 1],
    'A-law' => [fn () => aiffFile('ALAW', 8, str_repeat('x', 200)), 'A-law PCM', 1],
    'IMA' => [fn () => aiffFile('ima4', 16, str_repeat('x', 340), 48_000, 10), 'IMA ADPCM', 1],
    'GSM' => [fn () => aiffFile('GSM ', 16, str_repeat('x', 330), 8000, 10), 'GSM 6.10', 1],
    'a kind nobody knows' => [fn () => aiffFile('zz9z', 16, str_repeat('x', 340)), '“zz9z”', 1],
    'µ-law in CAF' => [fn () => cafFile('ulaw', 0, [1, 1, 8], str_repeat('x', 200)), 'µ-law PCM', 1],
    'A-law in CAF' => [fn () => cafFile('alaw', 0, [2, 1, 8], str_repeat('x', 200), 2), 'A-law PCM', 2],
    'IMA in CAF' => [fn () => cafFile('ima4', 0, [34, 64, 0], str_repeat('x', 340)), 'IMA ADPCM', 1],
    'layer II in CAF' => [fn () => cafFile('.mp2', 0, [768, 1152, 0], str_repeat('x', 7680), 2), 'MPEG Layer II', 2],
    'AC-3 in CAF' => [fn () => cafFile('ac-3', 0, [1792, 1536, 0], str_repeat('x', 17_920), 6), 'AC-3', 6],
    'a format nobody knows, in CAF' => [fn () => cafFile('zz9z', 0, [10, 10, 0], str_repeat('x', 100)), '“zz9z”', 1],
]);

it('takes as many frames as there are, where more or fewer are announced', function () {
    expect(Reader::read(aiffFile('', 16, numbersAs('s16be'), 48_000, 7))->sound()[0]->timeline->samples())->toBe(7)
        ->and(Reader::read(aiffFile('', 16, numbersAs('s16be'), 48_000, 900))->sound()[0]->timeline->samples())->toBe(12)
        ->and(Reader::read(aiffFile('', 16, numbersAs('s16be'), 48_000, 0))->sound()[0]->timeline->samples())->toBe(12)
        ->and(Reader::read(cafFile('lpcm', 0, [2, 1, 16], numbersAs('s16be'), length: -1))->sound()[0]->timeline->samples())->toBe(12)
        ->and(Reader::read(cafFile('lpcm', 0, [2, 1, 16], numbersAs('s16be'), length: 9999))->sound()[0]->timeline->samples())->toBe(12);
});

it('reads any rate out of the 80 bits of AIFF', function (int $rate) {
    expect(Reader::read(aiffFile('', 16, numbersAs('s16be'), $rate))->sound()[0]->sound->rate)->toBe($rate);
})->with([8000, 11_025, 22_050, 44_100, 48_000, 88_200, 96_000, 192_000, 1, 65_535]);

it('reads the texts of AIFF and of CAF', function () {
    $text = fn (string $name, string $body): string => $name.pack('N', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
    $aiff = Reader::read(aiffFile('', 16, numbersAs('s16be'),
        more: $text('NAME', 'Lift').$text('AUTH', "Wrenfield \xE9").$text('(c) ', '2031').$text('ANNO', 'two gates')));
    $strings = "title\0Lift\0artist\0Wrenfield\0gate width\x00".'12'."\0";
    $caf = Reader::read(cafFile('lpcm', 0, [2, 1, 16], numbersAs('s16be'),
        more: 'info'.pack('J', 4 + strlen($strings)).pack('N', 3).$strings));
    expect($aiff->tags->get(TagField::Title))->toBe('Lift')->and($aiff->tags->get(TagField::Artist))->toBe('Wrenfield é')
        ->and($aiff->tags->get(TagField::Copyright))->toBe('2031')->and($aiff->tags->get(TagField::Comment))->toBe('two gates')
        ->and($caf->tags->get(TagField::Title))->toBe('Lift')->and($caf->tags->get(TagField::Artist))->toBe('Wrenfield')
        ->and(implode(' ', array_merge(...array_values($caf->tags->free()))))->toContain('12');
});

it('decodes AAC of CAF, whatever form its set-up has', function (bool $descriptor, bool $short) {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48_000, Layout::stereo()), RateControl::exactly(96),
        [Signal::sweep(30_000), Signal::sweep(30_000)]);
    $part = fn (int $tag, string $body): string => chr($tag).($short ? '' : "\x80\x80\x80").chr(strlen($body)).$body;
    $config = $encoder->audio()->config;
    // Bytes of the bit rate look like the tag of the set-up.
    $cookie = $descriptor
        ? $part(3, "\0\1\0".$part(4, "\x40\x15\0\x05\x02".pack('N2', 0x00050210, 0x05020000).$part(5, $config)).$part(6, "\2")) : $config;
    $sizes = '';
    foreach ($packets as $packet) {
        $size = strlen($packet->data);
        $sizes .= ($size >= 128 ? chr(0x80 | $size >> 7) : '').chr($size & 0x7F);
    }
    $table = pack('JJNN', count($packets), 30_000, $encoder->delay(), count($packets) * 1024 - 30_000 - $encoder->delay()).$sizes;
    $path = cafFile('aac ', 2, [0, 1024, 0], implode('', array_column($packets, 'data')), 2,
        'kuki'.pack('J', strlen($cookie)).$cookie.'pakt'.pack('J', strlen($table)).$table);
    $decoded = Signal::decodeFile($path);
    expect(Reader::read($path)->sound()[0]->sound->config)->toBe($config)->and(count($decoded[0]))->toBe(30_000)
        ->and(Signal::difference(Signal::sweep(30_000), $decoded[0], 2000, 28_000))->toBeLessThan(-20.0);
})->with(['the bare set-up' => [false, false], 'a descriptor' => [true, false], 'a descriptor with short lengths' => [true, true]]);

it('reads descriptors with everything that may stand in them, and as far as they go', function () {
    $part = fn (int $tag, string $body): string => chr($tag).chr(strlen($body)).$body;
    $decoder = $part(4, "\x6B\x15\0\x05\x02".pack('N2', 0x0502AAAA, 0).$part(5, 'set-up'));
    foreach (["\0\1\0", "\0\1\x80\0\2", "\0\1\x40\5http:", "\0\1\x20\0\3", "\0\1\xE0\0\2\3abc\0\3"] as $head) {
        $read = ElementaryDescriptor::read($part(3, $head.$decoder.$part(6, "\2")));
        expect([$read->objectType, $read->specific])->toBe([0x6B, 'set-up']);
    }
    $whole = $part(3, "\0\1\0".$decoder);
    foreach (range(0, strlen($whole)) as $length) {
        $read = ElementaryDescriptor::read(substr($whole, 0, $length));
        expect(str_starts_with('set-up', $read->specific))->toBeTrue()->and([0, 0x6B])->toContain($read->objectType);
    }
});

it('refuses in a sentence what is no sound file any more', function (Closure $path, string $type) {
    expect(fn () => Reader::read($path()))->toThrow($type);
})->with([
    'AIFF without a description' => [fn () => Scratch::write('x.aiff', 'FORM'.pack('N', 24).'AIFFSSND'.pack('N3', 12, 0, 0).'data'),
        BrokenStructure::class],
    'AIFF without sound' => [fn () => Scratch::write('x.aiff', substr((string) file_get_contents(aiffFile('', 16, '')), 0, 38)),
        NoTracks::class],
    'AIFF with nothing' => [fn () => Scratch::write('x.aiff', 'FORM'.pack('N', 12).'AIFFxxxx'.pack('N', 0).str_repeat("\0", 12)),
        IndexMissing::class],
    'AIFF without channels' => [fn () => aiffFile('', 16, numbersAs('s16be'), channels: 0, announced: 5), BrokenStructure::class],
    'CAF without a description' => [fn () => Scratch::write('x.caf', 'caff'.pack('n2', 1, 0).'data'.pack('J', 12).str_repeat("\0", 20)),
        BrokenStructure::class],
    'CAF with a length that cannot be' => [fn () => Scratch::write('x.caf', 'caff'.pack('n2', 1, 0).'free'.pack('J', -9).str_repeat("\0",
        20)), BrokenStructure::class],
    'CAF without sound' => [fn () => Scratch::write('x.caf', substr((string) file_get_contents(cafFile('lpcm', 0, [2, 1, 16], '')), 0,
        52)), NoTracks::class],
]);
