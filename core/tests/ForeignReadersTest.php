<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array<string, mixed> what another reader says of a file */
function factsOf(string $how, string $path): array
{
    exec('/usr/bin/python3 '.escapeshellarg(__DIR__.'/fixtures/facts.py')." $how ".escapeshellarg($path).' 2>&1', $said, $status);
    expect($status)->toBe(0, implode("\n", $said));

    return (array) json_decode(implode("\n", $said), true);
}

/** A 24-bit WAV of as many channels, whose samples are known: whole numbers in steps. */
function steppedWave(int $channels, int $frames, int $rate = 48_000): string
{
    $sound = array_map(fn (int $seed): array => Signal::steps($frames, $seed), range(1, $channels));

    return Scratch::write('stepped.wav', Signal::wave($sound, SampleFormat::signed(24), $rate));
}

function madeAs(string $path, string $format, RateControl $rateControl, ?int $bits = null, ?SoundSpec $shaping = null): string
{
    $spec = Spec::sound(Outputs::named($format), $rateControl, Scratch::folder(), bits: $bits, shaping: $shaping ?? new SoundSpec);

    return (new Maker)->make(Planning::plan(Reader::read($path), $spec), 'foreign')->path;
}

it('writes uncompressed sound as other readers read it, sample by sample', function (string $format, int $channels, int $bits) {
    $path = steppedWave($channels, 500);
    $read = factsOf($format, madeAs($path, $format, RateControl::none(), $bits));
    expect(array_diff_key($read, ['samples' => 1]))->toBe(['rate' => 48_000, 'channels' => $channels, 'bits' => $bits, 'frames' => 500]);
    $whole = array_map(fn (float $sample): int => (int) round($sample * 2 ** 23), array_merge(...array_map(null, ...array_map(
        fn (int $seed): array => Signal::steps(500, $seed), range(1, max(2, $channels))))));
    $whole = $channels === 1 ? array_map(fn (float $sample): int => (int) round($sample * 2 ** 23), Signal::steps(500, 1)) : $whole;
    foreach ($read['samples'] as $index => $sample) {
        // Fewer bits are dithered: no more than a step and a half away.
        $own = $format === 'wav' && $bits === 8 ? $sample - 128 : $sample;
        $off = abs($own * 2 ** (24 - $bits) - $whole[$index]);
        if ($bits >= 24 ? $off !== 0 && $off !== 0.0 : $off > 1.5 * 2 ** (24 - $bits)) {
            expect([$index, $own, $whole[$index]])->toBe('alike');
        }
    }
})->with(['aiff', 'au'])->with([1, 2, 6])->with([8, 16, 24, 32]);

it('writes WAV as Python reads it', function (int $channels, int $bits) {
    $read = factsOf('wav', madeAs(steppedWave($channels, 500), 'wav', RateControl::none(), $bits));
    expect([$read['rate'], $read['channels'], $read['bits'], $read['frames'], count($read['samples'])])
        ->toBe([48_000, $channels, $bits, 500, 500 * $channels]);
})->with([1, 2])->with([8, 16]);

it('tells other readers the right rate, channels, depth and length', function (string $format, int $channels, int $rate, array $wanted) {
    $path = steppedWave($channels, 2 * $rate, $rate);
    $setting = Outputs::named($format)?->capabilities()->kbps === [] ? RateControl::none() : RateControl::near(128);
    $read = factsOf('tagged', madeAs($path, $format, $setting, $wanted['bits'] ?? null));
    foreach ($wanted as $name => $value) {
        expect($read[$name])->toBe($value, "$name of $format");
    }
    // This reader counts in MP4 what is coded, not what is presented; streams of frames have no place for their exact length.
    expect($read['seconds'])->toEqualWithDelta(2.0, ['adts' => 0.15, 'aac' => 0.09][$format] ?? 0.0003)->toBeGreaterThanOrEqual(1.9997);
})->with([
    ['flac', 1, 44_100, ['kind' => 'flac', 'rate' => 44_100, 'channels' => 1, 'bits' => 24, 'frames' => 88_200]],
    ['flac', 2, 48_000, ['kind' => 'flac', 'rate' => 48_000, 'channels' => 2, 'bits' => 24, 'frames' => 96_000]],
    ['flac', 6, 96_000, ['kind' => 'flac', 'rate' => 96_000, 'channels' => 6, 'bits' => 24, 'frames' => 192_000]],
    ['alac', 2, 48_000, ['kind' => 'mp4', 'rate' => 48_000, 'channels' => 2, 'bits' => 24]],
    ['alac', 6, 48_000, ['kind' => 'mp4', 'rate' => 48_000, 'channels' => 6, 'bits' => 16]],
    ['wavpack', 2, 44_100, ['kind' => 'wavpack', 'rate' => 44_100, 'channels' => 2]],
    ['wavpack', 1, 32_000, ['kind' => 'wavpack', 'rate' => 32_000]],
    ['mp3', 1, 22_050, ['kind' => 'mp3', 'rate' => 22_050, 'channels' => 1]],
    ['mp3', 2, 48_000, ['kind' => 'mp3', 'rate' => 48_000, 'channels' => 2, 'kbps' => 128]],
    ['mp3', 2, 32_000, ['kind' => 'mp3', 'rate' => 32_000, 'channels' => 2]],
    ['aac', 2, 44_100, ['kind' => 'mp4', 'rate' => 44_100, 'channels' => 2]],
    ['aac', 1, 48_000, ['kind' => 'mp4', 'rate' => 48_000, 'channels' => 1]],
    ['adts', 2, 48_000, ['kind' => 'aac', 'rate' => 48_000, 'channels' => 2]],
    ['opus', 2, 48_000, ['kind' => 'oggopus', 'channels' => 2]],
    ['opus', 1, 48_000, ['kind' => 'oggopus', 'channels' => 1]],
    ['opus', 6, 48_000, ['kind' => 'oggopus', 'channels' => 6]],
    ['vorbis', 2, 44_100, ['kind' => 'oggvorbis', 'rate' => 44_100, 'channels' => 2]],
    ['vorbis', 6, 48_000, ['kind' => 'oggvorbis', 'rate' => 48_000, 'channels' => 6]],
    ['wav', 2, 48_000, ['kind' => 'wave', 'rate' => 48_000, 'channels' => 2, 'bits' => 24]],
    ['wav', 6, 96_000, ['kind' => 'wave', 'rate' => 96_000, 'channels' => 6, 'bits' => 24]],
    ['aiff', 2, 44_100, ['kind' => 'aiff', 'rate' => 44_100, 'channels' => 2, 'bits' => 24]],
]);

it('tells other readers the length of a cut', function (string $source, string $format) {
    $whole = madeAs(steppedWave(2, 144_000), $source, $source === 'flac' ? RateControl::none() : RateControl::exactly(128));
    $cut = madeAs($whole, $format, RateControl::none(), shaping: Spec::shaping(pieces: '0.5-1.5,2-2.25', exact: true));
    expect(factsOf('tagged', $cut)['seconds'])->toEqualWithDelta(1.25, $format === 'aac' ? 0.09 : 0.0003);
})->with([['mp3', 'mp3'], ['aac', 'aac'], ['flac', 'flac'], ['opus', 'opus'], ['vorbis', 'vorbis'], ['mp3', 'flac'], ['aac', 'wav']]);

it('tells other readers of MP4 how long a video’s sound is', function (string $container) {
    $movie = Scratch::write('tour.mp4',
        Signal::movie([Signal::pictureTrack(75), Signal::aacTrack([Signal::sweep(144_000), Signal::sweep(144_000)])]));
    $spec = Spec::video(VideoOutputs::named($container), null, RateControl::none(), Scratch::folder());
    $made = (new Maker)->make(Planning::plan(Reader::read($movie), $spec), 'foreign')->path;
    $read = factsOf('tagged', $made);
    expect([$read['kind'], $read['rate'], $read['channels']])->toBe(['mp4', 48_000, 2])->and($read['seconds'])->toEqualWithDelta(3.0, 0.09);
})->with(['mp4', 'mov']);

it('says of a variable rate that it is one', function () {
    $made = madeAs(steppedWave(2, 96_000), 'mp3', RateControl::variable(4));
    expect(factsOf('tagged', $made)['mode'])->toContain('VBR')
        ->and(factsOf('tagged', madeAs(steppedWave(2, 96_000), 'mp3', RateControl::exactly(96)))['mode'])->toContain('CBR');
});
