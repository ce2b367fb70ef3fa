<?php

declare(strict_types=1);

use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Channel;

/** Bit rates in kbit/s: ISO/IEC 11172-3, 2.4.2.3, and 13818-3, 2.4.2.3, by version and layer. */
const RATES_OF_MPEG = [
    '1.1' => [32, 64, 96, 128, 160, 192, 224, 256, 288, 320, 352, 384, 416, 448],
    '1.2' => [32, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384],
    '1.3' => [32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320],
    '2.1' => [32, 48, 56, 64, 80, 96, 112, 128, 144, 160, 176, 192, 224, 256],
    '2.2' => [8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160],
    '2.3' => [8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160],
];

it('reads every header of MPEG audio as the standard counts its frame', function (int $version, int $layer) {
    $rates = [1 => [44_100, 48_000, 32_000], 2 => [22_050, 24_000, 16_000], 25 => [11_025, 12_000, 8000]][$version];
    $bits = [1 => 3, 2 => 2, 25 => 0][$version];
    foreach (RATES_OF_MPEG[($version === 1 ? 1 : 2).".$layer"] as $index => $kbps) {
        foreach ($rates as $rateIndex => $rate) {
            foreach ([0, 1] as $padding) {
                foreach ([0, 1, 2, 3] as $mode) {
                    $head = "\xFF".chr(0xE0 | $bits << 3 | (4 - $layer) << 1 | 1).chr(($index + 1) << 4 | $rateIndex << 2 | $padding << 1)
                        .chr($mode << 6);
                    $header = FrameHeader::parse($head);
                    $samples = [1 => 384, 2 => 1152, 3 => $version === 1 ? 1152 : 576][$layer];
                    $bytes = $layer === 1 ? ((int) floor(12 * $kbps * 1000 / $rate) + $padding) * 4
                        : (int) floor($samples / 8 * $kbps * 1000 / $rate) + $padding;
                    $read = $header === null ? null
                        : [$header->layer, $header->rate, $header->kbps, $header->channels, $header->bytes, $header->samples];
                    if ($read !== [$layer, $rate, $kbps, $mode === 3 ? 1 : 2, $bytes, $samples]) {
                        expect($read)->toBe([$layer, $rate, $kbps, $mode === 3 ? 1 : 2, $bytes, $samples], bin2hex($head));
                    }
                }
            }
        }
    }
    expect(FrameHeader::parse($head)?->codec())->toBe([1 => Codec::Mp1, 2 => Codec::Mp2, 3 => Codec::Mp3][$layer]);
})->with([1, 2, 25])->with([1, 2, 3]);

it('takes no other four bytes for a header of MPEG audio', function (string $hex) {
    expect(FrameHeader::parse((string) hex2bin($hex)))->toBeNull();
})->with([
    'no sync word' => 'fefb9000',
    'half a sync word' => 'ff1b9000',
    'a version that is reserved' => 'ffeb9000',
    'a layer that is reserved' => 'fff99000',
    'a bit rate that is forbidden' => 'fffbf000',
    'a rate that is reserved' => 'fffb9c00',
    'free format' => 'fffb0000',
    'too few bytes' => 'fffb90',
    'nothing' => '',
]);

it('knows which headers go on with a stream', function (string $first, string $second, bool $isOne) {
    [$one, $other] = [FrameHeader::parse((string) hex2bin($first)), FrameHeader::parse((string) hex2bin($second))];
    expect($one->continues($other))->toBe($isOne)->and($other->continues($one))->toBe($isOne);
})->with([
    'another bit rate' => ['fffb9000', 'fffba000', true],
    'padding' => ['fffb9000', 'fffb9200', true],
    'joint stereo' => ['fffb9000', 'fffb9040', true],
    'a checksum' => ['fffb9000', 'fffa9000', true],
    'mono' => ['fffb9000', 'fffb90c0', false],
    'another rate' => ['fffb9000', 'fffb9400', false],
    'another layer' => ['fffb9000', 'fffd9000', false],
    'another version' => ['fffb9000', 'fff39000', false],
]);

it('knows the length of every frame of AC-3: ATSC A/52, table 5.18', function (int $code, int $rate) {
    $parser = new Ac3FrameParser;
    foreach ([32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384, 448, 512, 576, 640] as $index => $kbps) {
        foreach ([0, 1] as $odd) {
            // Words of 16 bits: 1536 samples at the bit rate; at 44.1 kHz every other frame is one word longer.
            $words = $rate === 44_100 ? (int) floor($kbps * 1000 * 1536 / 44_100 / 16) + $odd : $kbps * 1536 / ($rate / 1000) / 16;
            $head = "\x0B\x77\0\0".chr($code << 6 | 2 * $index + $odd).chr(8 << 3).chr(2 << 5).str_repeat("\0", 10);
            $info = $parser->at(substr($head, 0, $parser->headBytes()));
            expect([$info?->bytes, $info?->samples])->toBe([(int) (2 * $words), 1536], "$kbps kbit/s");
        }
        expect($parser->audio($head)->rate)->toBe($rate);
    }
})->with([[0, 48_000], [1, 44_100], [2, 32_000]]);

it('puts the channels of AC-3 where its mode says: ATSC A/52, table 5.8', function (int $mode, bool $low, array $channels) {
    expect(Ac3FrameParser::layout($mode, $low)->channels)->toBe($channels);
})->with([
    [1, false, [Channel::Centre]],
    [2, false, [Channel::Left, Channel::Right]],
    [2, true, [Channel::Left, Channel::Right, Channel::LowFrequency]],
    [3, false, [Channel::Left, Channel::Centre, Channel::Right]],
    [4, false, [Channel::Left, Channel::Right, Channel::BackCentre]],
    [5, true, [Channel::Left, Channel::Centre, Channel::Right, Channel::BackCentre, Channel::LowFrequency]],
    [6, false, [Channel::Left, Channel::Right, Channel::SideLeft, Channel::SideRight]],
    [7, true, [Channel::Left, Channel::Centre, Channel::Right, Channel::SideLeft, Channel::SideRight, Channel::LowFrequency]],
]);

it('reads the headers of AAC that it writes, whatever they hold', function (int $object) {
    $rates = [96_000, 88_200, 64_000, 48_000, 44_100, 32_000, 24_000, 22_050, 16_000, 12_000, 11_025, 8000, 7350];
    $parser = new AdtsFrameParser;
    foreach ($rates as $index => $rate) {
        foreach ([1, 2, 3, 4, 5, 6, 7] as $channels) {
            $config = AudioSpecificConfig::plain($object, $index, $channels);
            foreach ([1, 200, 2047, 8184] as $bytes) {
                $head = AdtsFrameParser::header($config->bytes(), $bytes);
                $info = $parser->at((string) $head);
                $audio = $parser->audio($head.str_repeat('x', $bytes));
                $read = [strlen((string) $head), $info?->bytes, $info?->samples, $audio->rate, $audio->channels()];
                if ($read !== [7, $bytes + 7, 1024, $rate, $channels === 7 ? 8 : $channels]) {
                    expect($read)->toBe([7, $bytes + 7, 1024, $rate, $channels === 7 ? 8 : $channels],
                        "rate $rate, $channels channels, $bytes bytes");
                }
            }
        }
    }
    expect(AdtsFrameParser::header($config->bytes(), 8185))->toBeNull()
        ->and($parser->payload($head.'rest'))->toBe('rest');
})->with([1, 2, 4]);

it('takes nothing else for a header of AAC', function (string $hex) {
    expect((new AdtsFrameParser)->at((string) hex2bin($hex)))->toBeNull();
})->with(['fff150800020fc' => 'fff150800000fc', 'layer' => 'fff350800120fc', 'rate 13' => 'fff174800120fc', 'short' => 'fff15080',
    'sync' => 'fef150800120fc']);

it('counts the samples of a packet of Opus by its first bytes: RFC 6716, 3.1 and 3.2', function (int $config, float $milliseconds) {
    $one = (int) (48 * $milliseconds);
    expect(OpusHead::samples(chr($config << 3).'x'))->toBe($one)
        ->and(OpusHead::samples(chr($config << 3 | 4).'x'))->toBe($one)
        ->and(OpusHead::samples(chr($config << 3 | 1).'xx'))->toBe(2 * $one)
        ->and(OpusHead::samples(chr($config << 3 | 2)."\x01xx"))->toBe(2 * $one);
    foreach ([1, 2, 3] as $count) {
        if ($count * $one <= 5760) {
            expect(OpusHead::samples(chr($config << 3 | 3).chr($count).str_repeat('x', 20)))->toBe($count * $one);
        }
    }
})->with(function (): iterable {
    foreach (range(0, 31) as $config) {
        yield [$config, match (true) {
            $config < 12 => [10, 20, 40, 60][$config % 4],
            $config < 16 => [10, 20][$config % 2],
            default => [2.5, 5, 10, 20][$config % 4],
        }];
    }
});
