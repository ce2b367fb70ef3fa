<?php

declare(strict_types=1);

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** The chunk that says what samples are: number of the format, channels, rate, bytes a second, block, bits, extension. */
function formatChunk(int $tag, int $channels, int $rate, int $block, int $bits, string $more = ''): string
{
    return pack('vvVVvv', $tag, $channels, $rate, $rate * $block, $block, $bits).($more === '' ? '' : pack('v', strlen($more)).$more);
}

/** An extensible one: valid bits, mask, and the number within the sub-format. */
function extensible(int $valid, int $mask, int $tag, string $rest = FormatChunk::SUBFORMAT): string
{
    return pack('vVv', $valid, $mask, $tag).$rest;
}

it('names what a number of the registry stands for', function (int $tag, string $label, int $channels, int $bits, string $more = '') {
    $format = FormatChunk::parse(formatChunk($tag, $channels, 44_100, 4, $bits, $more), 'x.wav', 20);
    expect([CodecModules::describe($format->audio), $format->audio->rate, $format->audio->channels()])->toBe([$label, 44_100, $channels]);
})->with([
    [0x50, 'MPEG Layer II', 2, 0], [0x55, 'MP3', 2, 0], [0xFF, 'AAC', 2, 0], [0xFF, 'AAC-LC', 2, 16, "\x12\x10"], [0x1610, 'AAC-LC', 2,
        16, str_repeat("\0", 12)."\x12\x10"],
    [0x706D, 'AAC-LC', 2, 16, "\x12\x10"], [0x161, 'Windows Media Audio 2', 2, 16], [0x160, 'Windows Media Audio 1', 1, 16],
    [0x162, 'Windows Media Audio Professional', 6, 16], [0x163, 'Windows Media Audio Lossless', 2, 24], [0x0A, 'Windows Media Voice', 1,
        16], [0x2000, 'AC-3', 6, 0],
    [0x2001, 'DTS', 6, 0], [0xF1AC, 'FLAC', 2, 16], [0x02, 'Microsoft ADPCM', 2, 4], [0x11, 'IMA ADPCM', 1, 4], [0x31, 'GSM 6.10', 1, 0],
    [0x1234, 'form 0x1234, 12-bit', 2, 12],
]);

it('takes the bits a sample from its block, and its places from the mask', function (string $chunk, string $label, string $layout) {
    $format = FormatChunk::parse($chunk, 'x.wav', 20);
    expect([CodecModules::describe($format->audio), $format->audio->layout->name()])->toBe([$label, $layout]);
})->with([
    '16 bits' => [fn () => formatChunk(1, 2, 48_000, 4, 16), '16-bit PCM', 'stereo'], '20 bits in 24' => [fn () => formatChunk(1, 2,
        48_000, 6, 20), '24-bit PCM', 'stereo'],
    '12 bits in 16' => [fn () => formatChunk(1, 1, 48_000, 2, 12), '16-bit PCM', 'mono'], '8 bits' => [fn () => formatChunk(1, 1, 8000, 1,
        8), '8-bit PCM', 'mono'],
    'float' => [fn () => formatChunk(3, 2, 48_000, 8, 32), '32-bit float PCM', 'stereo'], 'double' => [fn () => formatChunk(3, 1, 48_000,
        8, 64), '64-bit float PCM', 'mono'],
    'A-law' => [fn () => formatChunk(6, 1, 8000, 1, 8), 'A-law PCM', 'mono'], 'µ-law' => [fn () => formatChunk(7, 1, 8000, 1, 8),
        'µ-law PCM', 'mono'],
    'extensible' => [fn () => formatChunk(0xFFFE, 6, 48_000, 18, 24, extensible(24, 0x60F, 1)), '24-bit PCM', '5.1'],
    'extensible, float' => [fn () => formatChunk(0xFFFE, 2, 48_000, 8, 32, extensible(32, 3, 3)), '32-bit float PCM', 'stereo'],
    'extensible, 20 of 24 bits' => [fn () => formatChunk(0xFFFE, 2, 48_000, 6, 24, extensible(20, 3, 1)), '24-bit PCM', 'stereo'],
    'a mask of fewer places' => [fn () => formatChunk(0xFFFE, 3, 48_000, 6, 16, extensible(16, 3, 1)), '16-bit PCM', '3 channels'],
    'no mask' => [fn () => formatChunk(0xFFFE, 4, 48_000, 8, 16, extensible(16, 0, 1)), '16-bit PCM', '4 channels'],
]);

it('refuses channels and rates that cannot be', function (int $channels, int $rate) {
    expect(fn () => FormatChunk::parse(formatChunk(1, $channels, $rate, 4, 16), 'x.wav', 20))->toThrow(BrokenStructure::class);
})->with([[0, 48_000], [9999, 48_000], [2, 0], [2, 99_999_999]]);

it('decodes sound that WAV only wraps', function (Codec $codec, int $tag) {
    [$encoder, $packets] = Signal::encode(new AudioFormat($codec, 48_000, Layout::stereo()), RateControl::exactly(192),
        [Signal::sweep(60_000), Signal::sweep(60_000)]);
    $data = implode('', array_map(fn (Packet $packet): string => $packet->data, $packets));
    $chunk = formatChunk($tag, 2, 48_000, 1, 0, $codec === Codec::Mp3 ? pack('vVvvv', 1, 2, 576, 1, 0) : pack('vVvvvvV', 2, 192_000, 1, 0,
        1, 1, 0));
    $path = Scratch::write('wrapped.wav', 'RIFF'.pack('V', 36 + strlen($chunk) + strlen($data)).'WAVEfmt '.pack('V', strlen($chunk)).$chunk
        .'fact'.pack('V2', 4, 60_000).'data'.pack('V', strlen($data)).$data);
    $decoded = Signal::decodeFile($path);
    expect(Reader::read($path)->sound()[0]->sound->codec)->toBe($codec)->and(Signal::packetsOf($path))->toBe(hash('xxh128', $data))
        ->and(count($decoded[0]))->toBe(Reader::read($path)->sound()[0]->timeline->samples())
        ->and($encoder->delay())->toBeGreaterThan(0);
})->with([[Codec::Mp3, 0x55], [Codec::Mp2, 0x50]]);

it('reads turned numbers as it reads the others', function () {
    $chunk = formatChunk(1, 2, 48_000, 6, 24);
    $turned = '';
    foreach ([[0, 2], [2, 2], [4, 4], [8, 4], [12, 2], [14, 2]] as [$at, $length]) {
        $turned .= strrev(substr($chunk, $at, $length));
    }
    $format = FormatChunk::turned($turned, 'x.wav', 20);
    expect([$format->audio->rate, $format->audio->channels(), $format->audio->pcm])->toEqual([48_000, 2, SampleFormat::signed(24, true)]);
});
