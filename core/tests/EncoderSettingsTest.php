<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Make\Comparison;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Tests\Support\SampleLibrary;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** Three seconds, quiet and loud by turns, the right side nearly the left one. */
function talk(): string
{
    mt_srand(11);
    [$left, $right] = [[], []];
    foreach (Signal::sweep(144_000, 0.3) as $index => $sample) {
        $noise = intdiv($index, 24_000) % 2 === 0 ? mt_rand(-9000, 9000) / 32_768 : mt_rand(-30, 30) / 32_768;
        $left[] = $sample + $noise;
        $right[] = 0.9 * ($sample + $noise) + 0.0001 * ($index % 7);
    }

    return Scratch::write('talk.wav', Signal::wave([$left, $right], SampleFormat::signed(24)));
}

function plannedOf(string $path, string $format, SoundSpec $sound, ?Length $length = null): Plan
{
    return Planning::stored(Planning::plan(Reader::read($path), new OutputSpec($format, sounds: [$sound], length: $length,
        place: Scratch::folder())));
}

/** @return list<string> coded packets of what is made */
function packetsMade(string $path, string $format, SoundSpec $sound): array
{
    $made = (new Maker)->make(plannedOf($path, $format, $sound), 'settings');
    $opened = Opener::open($made->path);
    expect(SampleLibrary::read($made->path)[0] ?? 144_000)->toBe($format === 'mp2' ? 145_152 : 144_000);

    return array_map(fn (Packet $packet): string => $packet->data,
        [...$opened->media->packets($opened->sound()[0], 0, PHP_INT_MAX >> 2)]);
}

/** CRC-16 of ISO/IEC 11172-3, 2.4.3.1, over bytes, from all ones. */
function crc16(string $bytes): int
{
    $sum = 0xFFFF;
    foreach (unpack('C*', $bytes) ?: [] as $byte) {
        for ($bit = 7; $bit >= 0; $bit--) {
            $sum = ($sum << 1 & 0xFFFF) ^ ((($sum >> 15) ^ ($byte >> $bit & 1)) === 1 ? 0x8005 : 0);
        }
    }

    return $sum;
}

it('codes two channels of MPEG audio jointly or each for itself', function (string $format, int $usual) {
    $modes = fn (?StereoCoding $stereo): array => array_values(array_unique(array_map(fn (string $frame): int => ord($frame[3]) >> 6,
        packetsMade(talk(), $format, new SoundSpec(rateControl: RateControl::exactly(128), stereo: $stereo)))));
    // Layer II couples only the bands of frames that want for bits.
    expect($modes(StereoCoding::Separate))->toBe([0])->and($modes(StereoCoding::Joint))->toContain(1)->and($modes(null))->toBe([$usual]);
})->with([['mp3', 1], ['mp2', 0]]);

it('codes two channels of Vorbis jointly unless it is told not to', function () {
    $bytes = fn (?StereoCoding $stereo): int => strlen(implode('', packetsMade(talk(), 'vorbis',
        new SoundSpec(rateControl: RateControl::variable(3), stereo: $stereo))));
    expect($bytes(StereoCoding::Separate))->toBeGreaterThan(1.1 * $bytes(null))->and($bytes(StereoCoding::Joint))->toBe($bytes(null));
});

it('puts sums into frames that a decoder can check', function (string $format) {
    foreach ([true, null] as $checksums) {
        $frames = packetsMade(talk(), $format, new SoundSpec(rateControl: RateControl::exactly(128), checksums: $checksums));
        $protected = array_filter($frames, fn (string $frame): bool => (ord($frame[1]) & 1) === 0);
        expect(count($protected))->toBe($checksums === true ? count($frames) : 0);
    }
    if ($format === 'mp3') {
        // Over the header's last two bytes and the side information of two channels
        $frames = packetsMade(talk(), $format, new SoundSpec(rateControl: RateControl::exactly(128), checksums: true));
        foreach ($frames as $frame) {
            expect(unpack('n', $frame, 4)[1])->toBe(crc16(substr($frame, 2, 2).substr($frame, 6, 32)));
        }
    }
})->with(['mp3', 'mp2']);

it('holds a bit rate in every frame or over the whole', function (string $format, ?RateMode $mode, bool $isConstant) {
    $rateControl = RateControl::near(96)->held($mode);
    $frames = packetsMade(talk(), $format, new SoundSpec(rateControl: $rateControl));
    $sizes = array_map(strlen(...), array_slice($frames, 2, -2));
    // Constant frames of MP3 differ by the one byte of padding.
    expect(max($sizes) - min($sizes) <= 1)->toBe($isConstant)
        ->and(array_sum(array_map(strlen(...), $frames)) * 8 / 3 / 96_000)->toBeGreaterThan(0.6)->toBeLessThan(1.15);
})->with([
    ['mp3', null, true], ['mp3', RateMode::Constant, true], ['mp3', RateMode::Average, false],
    ['opus', null, false], ['opus', RateMode::Constant, true], ['opus', RateMode::Average, false], ['vorbis', RateMode::Average, false],
]);

it('compresses as hard as it is told, and loses nothing', function (string $format, int $most) {
    $sizes = [];
    foreach ([0, $most] as $level) {
        $made = (new Maker)->make(plannedOf(talk(), $format, new SoundSpec(compression: $level)), 'settings');
        $sizes[] = filesize($made->path);
        expect(Comparison::of(talk(), $made->path)->identical)->toBeTrue();
    }
    expect($sizes[1])->toBeLessThan(0.99 * $sizes[0]);
})->with([['flac', 8], ['wavpack', 3]]);

it('rounds plainly where no dither is wanted', function () {
    [$usual, $plain] = [plannedOf(talk(), 'wav', new SoundSpec(bitDepth: 16)), plannedOf(talk(), 'wav', new SoundSpec(bitDepth: 16,
        dither: false))];
    expect($usual->sounds[0]->dither)->toBeTrue()->and($plain->sounds[0]->dither)->toBeFalse()
        ->and(implode(' · ', Planning::steps($plain)))->not->toContain('dither');
    $made = SampleLibrary::read((new Maker)->make($plain, 'settings')->path)[3][0];
    $source = SampleLibrary::read(talk())[3][0];
    foreach ($made as $index => $sample) {
        expect(abs($sample - $source[$index]) * 32_768)->toBeLessThanOrEqual(0.5);
    }
});

it('says in its steps what the encoder is told', function () {
    $steps = fn (string $format, SoundSpec $sound): string => implode(' · ', Planning::steps(plannedOf(talk(), $format, $sound)));
    expect($steps('mp3', new SoundSpec(rateControl: RateControl::near(128)->held(RateMode::Average), stereo: StereoCoding::Separate,
        checksums: true)))->toContain('encode MP3 at 128 kbit/s, on average, separate stereo, with checksums')
        ->and($steps('flac', new SoundSpec(compression: 8)))->toContain('compression 8');
});

it('refuses what a format does not have, with what it has', function (string $format, SoundSpec $sound, string $says) {
    expect(fn () => plannedOf(talk(), $format, $sound))->toThrow(CannotPlan::class, $says);
})->with([
    ['flac', new SoundSpec(compression: 9), 'the nearest it has: 8'], ['wav', new SoundSpec(compression: 1), 'no choice of levels'],
    ['opus', new SoundSpec(stereo: StereoCoding::Joint), 'no choice of joint or separate stereo'],
    ['flac', new SoundSpec(checksums: true), 'no choice of checksums'],
    ['vorbis', new SoundSpec(rateControl: RateControl::exactly(96)->held(RateMode::Constant)), 'it has: average'],
    ['aac', new SoundSpec(rateControl: RateControl::near(96)->held(RateMode::Average)), 'it has: constant'],
    ['wav', new SoundSpec(rateControl: RateControl::exactly(96)->held(RateMode::Constant)), 'no bit rate to choose'],
]);

it('lasts exactly as long as is asked: cut, or silence after it', function (string $length, ?string $pieces, string $format, int $samples) {
    $sound = Signal::steps(48_000, 5);
    $path = Scratch::write('length.wav', Signal::wave([$sound], SampleFormat::signed(16)));
    $plan = plannedOf($path, $format, new SoundSpec(pieces: $pieces), Length::tryFrom($length));
    $from = $pieces === null ? 0 : 12_000;
    $wanted = array_slice([...array_slice($sound, $from), ...array_fill(0, 96_000, 0.0)], 0, $samples);
    $made = (new Maker)->make($plan, 'length');
    expect($plan->sounds[0]->samples)->toBe($samples)->and(SampleLibrary::read($made->path)[0])->toBe($samples)
        ->and(Comparison::of(Scratch::write('wanted.wav', Signal::wave([$wanted], SampleFormat::signed(16))), $made->path)->identical)
        ->toBeTrue();
})->with([
    ['0:00.5', null, 'wav', 24_000], ['24000#', null, 'flac', 24_000], ['1.5', null, 'wav', 72_000], ['1.5', null, 'flac', 72_000],
    ['1', null, 'wav', 48_000], ['0.5', '0.25-', 'wav', 24_000], ['1', '0.25-end', 'flac', 48_000], ['0.5', '0.25-0.9', 'wav', 24_000],
]);

it('gives no length to several pieces, nor to one that is too short', function (string $pieces) {
    $path = Scratch::write('length.wav', Signal::wave([Signal::steps(48_000, 5)], SampleFormat::signed(16)));
    expect(fn () => plannedOf($path, 'wav', new SoundSpec(pieces: $pieces), Length::tryFrom('0.5')))
        ->toThrow(CannotPlan::class, 'A length of 0.5 can be given');
})->with(['0-0.2,0.4-0.6', '0.1-0.2', 'chapters', 'silences:-45:0.1']);

it('keeps a lossy sound that is longer on the borders of its frames', function () {
    $path = Scratch::write('long.mp3', Signal::mp3([Signal::sweep(96_000)], RateControl::exactly(64)));
    $plan = plannedOf($path, 'mp3', new SoundSpec, Length::tryFrom('1'));
    expect($plan->sounds[0]->isKept())->toBeTrue()->and(abs($plan->sounds[0]->samples - 48_000))->toBeLessThan(1_200);
});
