<?php

declare(strict_types=1);

use Octavox\Core\Codec\Aac\AacLayouts;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Aac\RawBlock;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** Level of a tone in a sound, as a share of a full one. @param  list<float>  $samples */
function toneOf(array $samples, float $hertz, int $rate): float
{
    [$real, $imaginary] = [0.0, 0.0];
    for ($index = 0; $index < 9600; $index++) {
        $turn = 2 * M_PI * $hertz * $index / $rate;
        $real += $samples[9600 + $index] * cos($turn);
        $imaginary += $samples[9600 + $index] * sin($turn);
    }

    return sqrt($real ** 2 + $imaginary ** 2) / 4800;
}

it('encodes a tone in every channel where it belongs, and nowhere else', function (int $count, string $format, int $rate) {
    $layout = AacLayouts::layout($count);
    $tones = array_map(fn (int $index, Channel $channel): float => $channel === Channel::LowFrequency ? 60.0 : 500.0 + 350 * $index,
        array_keys($layout->channels), $layout->channels);
    // The source has its channels in the order of the WAV mask.
    $masked = $layout->inMaskOrder();
    $order = array_map(fn (Channel $channel): float => $tones[array_search($channel, $layout->channels, true)], $masked->channels);
    // Three to eight channels that a file names no places for are taken in that order.
    $wave = Scratch::write('tones.wav', Signal::wave(array_map(fn (float $tone): array => Signal::sine($rate, $tone, $rate, 0.4), $order),
        SampleFormat::signed(16), $rate));
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $wave, '--into', $into, '--format', $format, '--json');
    expect($status)->toBe(0)->and($said['results'][0]['samples'])->toBe($format === 'aac' ? $rate : $said['results'][0]['samples']);
    $made = Reader::read($said['results'][0]['path']);
    expect($made->sound()[0]->sound->channels())->toBe($count);
    $decoded = Signal::decodeFile($said['results'][0]['path']);
    foreach ($decoded as $channel => $samples) {
        foreach ($order as $other => $tone) {
            $share = toneOf($samples, $tone, $rate);
            $channel === $other ? expect($share)->toBeGreaterThan(0.36)->toBeLessThan(0.44) : expect($share)->toBeLessThan(0.004);
        }
    }
})->with([[3, 'aac', 48_000], [4, 'aac', 44_100], [5, 'aac', 48_000], [6, 'aac', 48_000], [6, 'adts', 44_100], [8, 'aac', 48_000], [8,
    'adts', 48_000]]);

it('lets nothing but low frequencies into their element', function () {
    $audio = new AudioFormat(Codec::Aac, 48_000, AacLayouts::layout(6), null, '', 1024, 'AAC-LC');
    $silent = array_fill(0, 48_000, 0.0);
    $low = array_map(fn (float $a, float $b): float => $a + $b, Signal::sine(48_000, 60.0, 48_000, 0.3), Signal::sine(48_000, 3000.0,
        48_000, 0.3));
    [$encoder, $packets] = Signal::encode($audio, RateControl::exactly(384), [$silent, $silent, $silent, $silent, $silent, $low]);
    $decoder = Codecs::decoder($encoder->audio());
    $samples = [];
    foreach ([...$packets, null] as $packet) {
        $block = $packet === null ? $decoder->finish() : $decoder->decode($packet);
        foreach ($block?->toChannels() ?? [] as $channel => $part) {
            $samples[$channel] = [...$samples[$channel] ?? [], ...$part];
        }
    }
    expect(toneOf($samples[5], 60.0, 48_000))->toBeGreaterThan(0.26)->and(toneOf($samples[5], 3000.0, 48_000))->toBeLessThan(0.002)
        ->and(max(array_map(abs(...), array_slice($samples[0], 4000, 30_000))))->toBeLessThan(0.001)
        ->and(AudioSpecificConfig::parse($encoder->audio()->config)->channelConfiguration)->toBe(6);
});

it('keeps to the bit rate as one encoder would, and refuses what AAC has no number for', function () {
    $rate = fn (int $kbps): float => array_sum(array_map(fn ($packet): int => strlen($packet->data),
        Signal::encode(new AudioFormat(Codec::Aac, 48_000,
            AacLayouts::layout(6), null, '', 1024, 'AAC-LC'), RateControl::exactly($kbps), array_map(fn (int $seed): array => Signal::steps(96_000, $seed),
                range(1, 6)))[1])) * 8 / 2000;
    foreach ([192, 384, 640] as $kbps) {
        expect($rate($kbps))->toEqualWithDelta($kbps, 0.05 * $kbps);
    }
    expect(fn () => Codecs::encoder(new AudioFormat(Codec::Aac, 48_000, Layout::undeclared(7)), RateControl::exactly(448)))
        ->toThrow(EncoderRefused::class)
        ->and(AacLayouts::configuration(7))->toBeNull()->and(AacLayouts::carrying(Layout::of(Channel::Left, Channel::Right,
            Channel::BackLeft,
            Channel::BackRight), 'AAC')->count())->toBe(5);
});

it('puts units together bit by bit, whatever their lengths', function () {
    mt_srand(15);
    for ($time = 0; $time < 400; $time++) {
        $block = new RawBlock;
        $expected = '';
        foreach (range(1, mt_rand(1, 5)) as $tag) {
            $body = '';
            for ($bit = mt_rand(1, 90); $bit > 0; $bit--) {
                $body .= mt_rand(0, 1);
            }
            $unit = '0000000'.$body.'111';
            $unit .= str_repeat('0', -strlen($unit) & 7);
            $element = mt_rand(0, 3);
            $block->add(implode('', array_map(fn (string $byte): string => chr((int) bindec($byte)), str_split($unit, 8))), $element, $tag);
            $expected .= sprintf('%03b%04b', $element, $tag).$body;
        }
        $expected .= '111';
        $expected .= str_repeat('0', -strlen($expected) & 7);
        expect(implode('', array_map(fn (string $byte): string => sprintf('%08b', ord($byte)), str_split($block->finish()))))
            ->toBe($expected);
    }
    expect(fn () => (new RawBlock)->add("\1\2", 0, 0))->toThrow(UnexpectedValueException::class)
        ->and(fn () => (new RawBlock)->add('', 0, 0))->toThrow(UnexpectedValueException::class);
});
