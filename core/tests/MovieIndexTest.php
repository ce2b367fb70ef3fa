<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\IndexMissing;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

const HOLDERS = ['moov', 'trak', 'mdia', 'minf', 'stbl', 'udta', 'edts'];

/** Boxes as another writer would have them: each is given to a function, which says what stands there instead. */
function rewritten(string $boxes, callable $instead): string
{
    $out = '';
    for ($at = 0; $at < strlen($boxes); $at += $length) {
        $length = unpack('N', $boxes, $at)[1];
        $head = 8;
        if ($length === 1) {
            [$length, $head] = [unpack('J', $boxes, $at + 8)[1], 16];
        }
        $type = substr($boxes, $at + 4, 4);
        $body = substr($boxes, $at + $head, $length - $head);
        if ($type === 'mdat') {
            $out .= substr($boxes, $at, $length);

            continue;
        }
        $body = in_array($type, HOLDERS, true) ? rewritten($body, $instead) : $body;
        $out .= $instead($type, $body) ?? Signal::box($type, $body);
    }

    return $out;
}

/** A movie whose index stands behind the sound, so that places stay what they are: pictures, AAC, PCM. */
function plainMovie(): string
{
    return Signal::movie([Signal::pictureTrack(40), Signal::aacTrack([Signal::sweep(60_000), Signal::sweep(60_000, 0.2)]),
        Signal::pcmTrack([Signal::steps(70_000, 4)], SampleFormat::signed(16, true))], indexFirst: false, brand: 'qt  ');
}

/** @return list<mixed> all that a movie holds */
function heldBy(string $path): array
{
    $opened = Opener::open($path);
    $sums = [];
    foreach ($opened->media->pictures($opened->picture()) as $sample) {
        $sums[] = [md5($sample->data->bytes()), $sample->pts, $sample->key];
    }
    foreach ($opened->sound() as $track) {
        $hash = hash_init('xxh128');
        foreach ($opened->media->packets($track, 0, PHP_INT_MAX >> 2) as $packet) {
            hash_update($hash, $packet->data);
        }
        $sums[] = [$track->timeline->samples(), $track->timeline->startOffset, CodecModules::describe($track->sound), hash_final($hash)];
    }

    return $sums;
}

it('finds the same in every form that an index can have', function (Closure $instead) {
    $plain = plainMovie();
    $other = rewritten($plain, $instead);
    expect($other === $plain)->toBeFalse()->and(heldBy(Scratch::write('other.mov', $other)))
        ->toBe(heldBy(Scratch::write('plain.mov', $plain)));
})->with([
    'places of 64 bits' => [fn (string $type, string $body): ?string => $type !== 'stco' ? null : Signal::box('co64',
        substr($body, 0, 8).implode('', array_map(fn (int $place): string => pack('J', $place), array_values(unpack('N*', $body, 8)))))],
    'sizes of 16 bits' => [fn (string $type, string $body): ?string => $type !== 'stsz' || substr($body, 4, 4) !== "\0\0\0\0" ? null
        : Signal::box('stz2', "\0\0\0\0\0\0\0\x10".substr($body, 8, 4).pack('n*', ...unpack('N*', $body, 12)))],
    'boxes of 64 bits' => [fn (string $type, string $body): ?string => in_array($type, ['trak', 'stts', 'stsd', 'mdia'], true)
        ? Signal::box($type, $body, true) : null],
    'unknown boxes between' => [fn (string $type, string $body): ?string => in_array($type, ['trak', 'mdhd', 'stsc', 'mvhd'], true)
        ? Signal::box('free', 'nothing').Signal::box($type, $body).Signal::box('zzzz', str_repeat('z', 33)) : null],
    'durations in many runs' => [fn (string $type, string $body): ?string => $type !== 'stts' || unpack('N', $body, 4)[1] !== 1
        || unpack('N', $body, 8)[1] < 9 ? null
        : Signal::box('stts', "\0\0\0\0".pack('N', 3).pack('N2', 4, unpack('N', $body, 12)[1]).pack('N2', 1, unpack('N', $body, 12)[1])
            .pack('N2', unpack('N', $body, 8)[1] - 5, unpack('N', $body, 12)[1]))],
    'headers of version 1' => [fn (string $type, string $body): ?string => match ($type) {
        'mdhd' => Signal::box('mdhd',
            "\1\0\0\0".pack('J2', 0, 0).substr($body, 12, 4).pack('J', unpack('N', $body, 16)[1]).substr($body, 20)),
        'mvhd' => Signal::box('mvhd',
            "\1\0\0\0".pack('J2', 0, 0).substr($body, 12, 4).pack('J', unpack('N', $body, 16)[1]).substr($body, 20)),
        'elst' => Signal::box('elst', "\1\0\0\0".substr($body, 4, 4).implode('', array_map(
            fn (string $edit): string => pack('J2', unpack('N', $edit)[1],
                unpack('N', $edit, 4)[1] === 0xFFFFFFFF ? -1 : unpack('N', $edit, 4)[1])
                .substr($edit, 8), str_split(substr($body, 8), 12)))),
        default => null,
    }],
]);

it('reads a movie whose index is compressed, and refuses one where that cannot be undone', function () {
    $plain = plainMovie();
    $at = strrpos($plain, 'moov') - 4;
    $index = substr($plain, $at);
    $compressed = (string) zlib_encode($index, ZLIB_ENCODING_DEFLATE);
    $packed = fn (string $method, string $data): string => substr($plain, 0, $at).Signal::box('moov', Signal::box('cmov',
        Signal::box('dcom', $method).Signal::box('cmvd', pack('N', strlen($index)).$data)));
    expect(heldBy(Scratch::write('packed.mov', $packed('zlib', $compressed))))->toBe(heldBy(Scratch::write('plain.mov', $plain)))
        ->and(fn () => Reader::read(Scratch::write('broken.mov', $packed('zlib', substr($compressed, 0, 60)))))
        ->toThrow(IndexMissing::class)
        ->and(fn () => Reader::read(Scratch::write('other.mov',
            $packed('zlib', (string) zlib_encode(Signal::box('free', 'x'), ZLIB_ENCODING_DEFLATE)))))
        ->toThrow(IndexMissing::class);
});

it('reads the texts that QuickTime puts beside the tracks', function () {
    $text = fn (string $value): string => pack('n2', strlen($value), 0).$value;
    $bytes = rewritten(plainMovie(), fn (string $type, string $body): ?string => $type !== 'moov' ? null
        : Signal::box('moov', $body.Signal::box('udta',
            Signal::box("\xA9nam", $text('The lift opens')).Signal::box("\xA9ART",
                $text('Wrenfield')).Signal::box("\xA9zzz", $text('nothing'))
            .Signal::box("\xA9cmt", '')).Signal::box('free', '')));
    $tags = Reader::read(Scratch::write('texts.mov', $bytes))->tags;
    expect($tags->get(TagField::Title))->toBe('The lift opens')->and($tags->get(TagField::Artist))->toBe('Wrenfield')
        ->and($tags->get(TagField::Comment))->toBeNull();
});

it('reads the tags of an item list in every form they have', function () {
    $data = fn (int $type, string $value): string => Signal::box('data', pack('N2', $type, 0).$value);
    $free = fn (string $name, string $value): string => Signal::box('----',
        Signal::box('mean', "\0\0\0\0com.example").Signal::box('name', "\0\0\0\0".$name).$data(1, $value));
    $list = Signal::box("\xA9nam", $data(1, 'Lift')).Signal::box('gnre', $data(0, pack('n', 18))).Signal::box('trkn',
        $data(0, pack('n4', 0, 3, 12, 0)))
        .Signal::box('disk', $data(0, pack('n3', 0, 1, 2))).Signal::box("\xA9ART", $data(1, 'One').$data(1, 'Two')).Signal::box('free', 'x')
        .$free('GATES', '12').Signal::box("\xA9alb", Signal::box('data', 'short')).Signal::box("\xA9cmt",
            $data(1, str_repeat('long ', 20_000)));
    foreach (["\0\0\0\0", ''] as $version) {
        $meta = Signal::box('meta',
            $version.Signal::box('hdlr', str_repeat("\0", 8).'mdir'.str_repeat("\0", 13)).Signal::box('ilst', $list));
        $bytes = rewritten(plainMovie(), fn (string $type, string $body): ?string => $type !== 'moov' ? null
            : Signal::box('moov', $body.Signal::box('udta', $meta)));
        $tags = Reader::read(Scratch::write('tags.mov', $bytes))->tags;
        expect($tags->get(TagField::Title))->toBe('Lift')->and($tags->get(TagField::Genre))->toBe('Rock')
            ->and($tags->get(TagField::Track))->toBe('3/12')
            ->and($tags->get(TagField::Disc))->toBe('1/2')->and($tags->all(TagField::Artist))->toBe(['One', 'Two'])
            ->and($tags->get(TagField::Comment))->toBeNull()->and($tags->free())->toBe(['GATES' => ['12']]);
    }
});

it('says in a sentence what is wrong with an index', function (Closure $instead, string $type) {
    expect(fn () => heldBy(Scratch::write('wrong.mov', rewritten(plainMovie(), $instead))))->toThrow($type);
})->with([
    'more entries than there is room for' => [fn (string $type, string $body): ?string => $type !== 'stco' ? null
        : Signal::box('stco', substr($body, 0, 4).pack('N', 1_000_000).substr($body, 8)), BrokenStructure::class],
    'places beyond the file' => [fn (string $type, string $body): ?string => $type !== 'stco' ? null
        : Signal::box('co64', substr($body, 0, 8).str_repeat(pack('J', 1 << 62), unpack('N', $body, 4)[1])), BytesMissing::class],
    'places that cannot be' => [fn (string $type, string $body): ?string => $type !== 'stco' ? null
        : Signal::box('co64', substr($body, 0, 8).str_repeat(pack('J', PHP_INT_MIN), unpack('N', $body, 4)[1])), BrokenStructure::class],
    'durations beyond all time' => [fn (string $type, string $body): ?string => $type !== 'stts' ? null
        : Signal::box('stts', "\0\0\0\0".pack('N', 2).pack('N4', 0xFFFFFFFF, 0xFFFFFFFF, 0xFFFFFFFF, 0xFFFFFFFF)), BrokenStructure::class],
]);
