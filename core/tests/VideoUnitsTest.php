<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Codec\Video\HevcParameters;
use Octavox\Core\Codec\Video\PictureUnits;
use Octavox\Core\Codec\WavPack\BareBlocks;
use Octavox\Core\Codec\WavPack\BlockHeader;
use Octavox\Core\Codec\WavPack\WavPackLength;
use Octavox\Core\Container\BitmapHeader;
use Octavox\Core\Media\Codec;

/** A number of Exp-Golomb form. */
function golomb(BitWriter $bits, int $number): BitWriter
{
    $length = strlen(decbin($number + 1));

    return $bits->bits(0, $length - 1)->bits($number + 1, $length);
}

/**
 * A sequence parameter set of H.265, written after 7.3.2.2.1.
 *
 * @param  list<array{int, int}>  $layers  of each further layer, whether its profile and its level are told
 * @param  ?array{int, int, int, int}  $window  cropped units: left, right, top, bottom
 */
function hevcSequence(int $width, int $height, int $chroma = 1, int $bits = 8, array $layers = [], ?array $window = null): string
{
    $writer = (new BitWriter)->bits(0, 4)->bits(count($layers), 3)->bits(1, 1);
    // Profile 2, tier 1, compatibility, constraints, level 5.1
    $writer->bits(0, 2)->bits(1, 1)->bits(2, 5)->bits(0x2000_0000, 32)->bits(0x9000, 16)->bits(0, 32)->bits(153, 8);
    foreach ($layers as [$profile, $level]) {
        $writer->bits($profile, 1)->bits($level, 1);
    }
    for ($layer = count($layers); $layers !== [] && $layer < 8; $layer++) {
        $writer->bits(0, 2);
    }
    foreach ($layers as [$profile, $level]) {
        for ($byte = 0; $byte < 11 * $profile + $level; $byte++) {
            $writer->bits(0xA5, 8);
        }
    }
    golomb(golomb($writer, 0), $chroma);
    if ($chroma === 3) {
        $writer->bits(0, 1);
    }
    golomb(golomb($writer, $width), $height);
    $writer->bits($window === null ? 0 : 1, 1);
    foreach ($window ?? [] as $units) {
        golomb($writer, $units);
    }
    golomb(golomb($writer, $bits - 8), $bits - 8);
    // Three bytes that could be taken for the start of a unit are kept apart: 7.4.2.
    $bytes = (string) preg_replace('/\x00\x00(?=[\x00-\x03])/', "\0\0\3", $writer->bytes().str_repeat("\x80", 8));

    return "\x42\x01".$bytes;
}

it('reads width, chroma and bits of H.265, whatever layers come before',
    function (string $unit, array $size, int $chroma, int $bits, int $layers) {
        $found = HevcParameters::parse($unit);
        expect([$found->size(), $found->chroma, $found->lumaBits, $found->chromaBits, $found->layers, $found->nested])
            ->toBe([$size, $chroma, $bits, $bits, $layers, true])
            ->and(bin2hex($found->profile))->toBe('2220000000900000000000'.'99');
    })->with([
        'plain' => [fn (): string => hevcSequence(1920, 1080), [1920, 1080], 1, 8, 1],
        'cropped, as 1080 lines of blocks of 16 are' => [fn (): string => hevcSequence(1920, 1088, window: [0, 0, 0, 4]),
            [1920, 1080], 1, 8, 1],
        'ten bits, 4:2:2' => [fn (): string => hevcSequence(3840, 2160, 2, 10, window: [1, 1, 2, 3]), [3836, 2155], 2, 10, 1],
        'twelve bits, 4:4:4' => [fn (): string => hevcSequence(640, 360, 3, 12), [640, 360], 3, 12, 1],
        'layers with profiles and levels' => [fn (): string => hevcSequence(1280, 720, layers: [[1, 1], [0, 1], [1, 0]]), [1280, 720], 1,
            8, 4],
    ]);

it('finds nothing in units of H.265 that are cut short or cannot be', function () {
    $unit = hevcSequence(1920, 1080);
    foreach (range(0, 16) as $length) {
        expect(HevcParameters::parse(substr($unit, 0, $length)))->toBeNull();
    }
    expect(HevcParameters::parse(hevcSequence(64, 64, 7)))->toBeNull()
        ->and(PictureUnits::of(Codec::H265)->configuration("\0\0\1".$unit))->toBe('')
        ->and(PictureUnits::of(Codec::Vp9))->toBeNull()->and(PictureUnits::of(Codec::H265)->size("\0\0\1\x26\1abc"))->toBe([0, 0]);
});

it('knows the kinds of units with which decoding can begin', function (Codec $codec, string $unit, bool $key) {
    expect(PictureUnits::of($codec)->isKey("\0\0\0\1".$unit.'body'))->toBe($key);
})->with([
    [Codec::H264, "\x65", true], [Codec::H264, "\x41", false], [Codec::H265, "\x26\1", true], [Codec::H265, "\x2A\1", true],
    [Codec::H265, "\x20\1", true], [Codec::H265, "\x02\1", false], [Codec::H265, "\x40\1", false],
]);

it('leaves out delimiters and the parameter sets that stand in the record, and keeps others', function () {
    $units = PictureUnits::of(Codec::H265);
    $sets = ["\x40\1video", hevcSequence(320, 240), "\x44\1picture"];
    $record = $units->configuration("\0\0\0\1".implode("\0\0\0\1", $sets));
    $lengths = fn (string ...$own): string => implode('', array_map(fn (string $unit): string => pack('N', strlen($unit)).$unit, $own));
    expect($units->withLengths("\0\0\0\1\x46\1\x50\0\0\0\1".implode("\0\0\1", $sets)."\0\0\1\x26\1slice", $record))
        ->toBe($lengths("\x26\1slice"))
        ->and($units->withLengths("\0\0\1\x44\1another\0\0\1\x02\1slice", $record))->toBe($lengths("\x44\1another", "\x02\1slice"));
});

it('reads bitmap headers: sizes, rows from the top, names of codecs',
    function (string $compression, string $handler, Codec $codec, string $label) {
        $head = pack('VVVvva4VVVVV', 40, 720, 0xFFFFFFFF - 575, 1, 24, $compression, 0, 0, 0, 0, 0);
        $bitmap = BitmapHeader::parse($head, $handler);
        expect([$bitmap->width, $bitmap->height, $bitmap->codec(), $bitmap->label()])->toBe([720, 576, $codec, $label])
            ->and(BitmapHeader::parse(substr($head, 0, 39)))->toBeNull();
    })->with([
        ['MJPG', '', Codec::MotionJpeg, 'Motion JPEG'], ["\0\0\0\0", 'mjpg', Codec::MotionJpeg, 'Motion JPEG'],
        ["\0\0\0\0", "\0\0\0\0", Codec::BitmapCoded, 'uncompressed pictures'],
        ['WVC1', 'xxxx', Codec::WindowsMediaVideo, 'Windows Media Video'], ['xvid', '', Codec::BitmapCoded, 'MPEG-4 Visual'],
        ['H264', '', Codec::BitmapCoded, 'H.264'], ["Z\x01Q\xFF", '', Codec::BitmapCoded, 'ZQ'],
    ]);

it('gives WavPack blocks their headers back and takes sums of whole blocks out', function () {
    $bare = fn (int $flags, string $body): string => pack('V3', 1000, $flags, 0xCAFE).$body;
    $whole = BareBlocks::whole($bare(0x1801, 'body'), 5_000_000_000, 0x410);
    $header = BlockHeader::parse($whole);
    expect([$header->bytes, $header->total, $header->start, $header->samples, $header->sampleBytes()])
        ->toBe([36, null, 5_000_000_000, 1000, 2])
        ->and(substr($whole, 32))->toBe('body')->and((new WavPackLength)->samples($whole))->toBe(1000)
        ->and((new WavPackLength)->samples($bare(0x1801, 'body')))->toBe(1000)
        ->and(substr(BareBlocks::whole($bare(0x10001801, "body\x2F\x01ab"), 0, 0x410), 24,
            8).substr(BareBlocks::whole($bare(0x10001801, "body\x2F\x01ab"), 0, 0x410), 32))->toBe(pack('V2', 0x1801, 0xCAFE).'body')
        ->and(substr(BareBlocks::whole($bare(0x10001801, "body\x2F\x02abcd"), 0, 0x410), 32))->toBe('body')
        // Two blocks, of which the second is longer than what is there.
        ->and(BareBlocks::whole(pack('V', 9).pack('V2', 0x801, 1).pack('V', 4).'left'.pack('V2', 0x1001, 2).pack('V', 99).'right',
            0, 0x410))->toBe('')
        ->and(BareBlocks::whole('short', 0, 0x410))->toBe('')->and((new WavPackLength)->samples("\xFF\xFF\xFF\xFF"))->toBe(0)
        ->and((new WavPackLength)->samples('abc'))->toBe(0);
});
