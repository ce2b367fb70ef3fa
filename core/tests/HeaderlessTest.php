<?php

declare(strict_types=1);

use Octavox\Core\Analysis\HeaderlessGuess;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\RateConverter;
use Octavox\Core\Tests\Support\FullSounds;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return list<float> a sound at another rate */
function atRate(array $samples, int $from, int $to): array
{
    static $known = [];
    $mark = hash('xxh128', pack('g*', ...$samples)).$to;
    if (isset($known[$mark])) {
        return $known[$mark];
    }
    $converter = new RateConverter($from, $to, 1, false);
    $in = FloatBuffer::fromBytes(pack('g*', ...$samples));
    $out = new FloatBuffer(count($samples) + 8000);
    $all = '';
    for ($at = 0; $at < count($samples); $at += $done->used) {
        $done = $converter->convert($in, $at, count($samples) - $at, $out);
        $all .= $out->bytes(0, $done->given);
    }

    return $known[$mark] = array_values(unpack('g*', $all));
}

/** Bytes of a sound in a format without a header, by the encoders of the codec libraries. */
function headerless(HeaderlessFormat $format, array $channels): string
{
    [, $packets] = Signal::encode($format->audio(), RateControl::none(), $channels);

    return implode('', array_map(fn (Packet $packet): string => $packet->data, $packets));
}

it('guesses what files without a header hold: kind, order of bytes and family of the rate in 95 of 100 cases', function () {
    $kinds = ['pcm16', 'pcm16big', 'pcm24', 'pcm24big', 'ulaw', 'alaw', 'pcm8unsigned', 'pcm8', 'float32', 'float32big', 'pcm32',
        'pcm32big',
        'float64'];
    $rates = [8000, 16_000, 44_100, 48_000];
    $sounds = FullSounds::all();
    // Telephone and dictation, or music and film: what lies between has half the speed and an octave of difference.
    $family = fn (int $rate): string => $rate <= 24_000 ? 'narrow' : 'full';
    $right = $kindRight = $channelsRight = $all = 0;
    $wrong = [];
    $number = 0;
    foreach ($sounds as $name => $sound) {
        foreach ([...$kinds, 'pcm16', 'pcm24'] as $kind) {
            $rate = in_array($kind, ['ulaw', 'alaw'], true) ? 8000 : $rates[$number % 4];
            $channels = $number % 3 === 0 ? 2 : 1;
            $one = atRate($sound, FullSounds::RATE, $rate);
            $other = atRate($sounds['band'], FullSounds::RATE, $rate);
            $side = array_map(fn (float $a, float $b): float => 0.7 * $a + 0.2 * $b, $one, array_slice($other, 0,
                count($one)) + array_fill(0,
                    count($one), 0.0));
            $format = HeaderlessFormat::parse("$kind:$rate:$channels");
            $guess = HeaderlessGuess::guess(new MemoryBytes(headerless($format, $channels === 2 ? [$one, $side] : [$one])))[0] ?? null;
            $isKind = $guess?->kind() === $kind;
            $isRight = $isKind && $family($guess->rate) === $family($rate);
            [$all, $right, $kindRight] = [$all + 1, $right + ($isRight ? 1 : 0), $kindRight + ($isKind ? 1 : 0)];
            $channelsRight += $guess?->channels === $channels ? 1 : 0;
            $number++;
            if (! $isRight) {
                $wrong[] = "$name as $format: $guess";
            }
        }
    }
    expect($right / $all)->toBeGreaterThanOrEqual(0.95, implode('; ', $wrong))->and($kindRight / $all)->toBeGreaterThanOrEqual(0.97)
        ->and($channelsRight / $all)->toBeGreaterThanOrEqual(0.9);
});

it('knows telephone codings that are no samples, and noise that is no sound', function () {
    $voice = atRate(FullSounds::all()['voice'], FullSounds::RATE, 8000);
    $vox = headerless(HeaderlessFormat::parse('vox:8000:1'), [$voice]);
    expect((string) (HeaderlessGuess::guess(new MemoryBytes($vox))[0] ?? ''))->toBe('vox:8000:1');
    // Frames of GSM 06.10 are known by the first four bits of each.
    $gsm = implode('', array_map(fn (int $frame): string => chr(0xD0 | mt_rand(0, 15)).random_bytes(32), range(1, 300)));
    expect((string) (HeaderlessGuess::guess(new MemoryBytes($gsm))[0] ?? ''))->toBe('gsm:8000:1');
    foreach ([random_bytes(200_000), str_repeat("\0", 100_000), 'short', ''] as $bytes) {
        $guesses = HeaderlessGuess::guess(new MemoryBytes($bytes));
        expect(count($guesses))->toBeLessThanOrEqual(5);
    }
    expect(HeaderlessGuess::guess(new MemoryBytes(str_repeat("\0", 100_000))))->toBe([]);
});

it('says how many samples so many bytes are', function () {
    expect(HeaderlessFormat::parse('pcm24:48000:2')->frames(6007))->toBe(1001)->and(HeaderlessFormat::parse('vox:8000:1')->frames(10))
        ->toBe(20)
        ->and(HeaderlessFormat::parse('gsm:8000:1')->frames(70))->toBe(320)
        ->and(HeaderlessFormat::parse('pcm16big:44100:2')->label())->toBe('16 bit, high byte first, 44,100 Hz, stereo');
});

it('reads a large file only in parts', function () {
    $voice = atRate(FullSounds::all()['voice'], FullSounds::RATE, 16_000);
    $bytes = FileBytes::open(Scratch::write('long.raw', str_repeat(headerless(HeaderlessFormat::parse('pcm16:16000:1'), [$voice]), 200)));
    expect((string) HeaderlessGuess::guess($bytes)[0])->toBe('pcm16:16000:1')->and($bytes->bytesRead())->toBeLessThan(2_000_000);
});
