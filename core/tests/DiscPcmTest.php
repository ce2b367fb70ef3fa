<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Mpeg\DiscPcm;
use Octavox\Core\Container\Mpeg\Pes;
use Octavox\Core\Container\Mpeg\VideoDiscPcm;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\TransportWriter;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\TimeStamp;

/** @return list<list<int>> frames of numbers of so many bits with a sign */
function discFrames(int $count, int $channels, int $bits): array
{
    mt_srand($channels * $bits);
    $most = (1 << ($bits - 1)) - 1;

    return array_map(fn (int $frame): array => array_map(fn (int $channel): int => mt_rand(-$most - 1, $most), range(1, $channels)),
        range(1, $count));
}

/** The sound of a video disc as its sub-stream holds it: the upper sixteen bits of two frames, then what is left of them. */
function videoDiscPacket(array $frames, int $bits, int $rateCode): string
{
    $channels = count($frames[0]);
    $bytes = "\xA0\x01\x00\x04\x00".chr([16 => 0, 20 => 1, 24 => 2][$bits] << 6 | $rateCode << 4 | $channels - 1)."\x80";
    foreach (array_chunk($frames, 2) as $pair) {
        $numbers = array_merge(...$pair);
        foreach ($numbers as $number) {
            $bytes .= pack('n', ($number >> ($bits - 16)) & 0xFFFF);
        }
        if ($bits === 24) {
            foreach ($numbers as $number) {
                $bytes .= chr($number & 0xFF);
            }
        }
        foreach ($bits === 20 ? array_chunk($numbers, 2) : [] as [$first, $second]) {
            $bytes .= chr(($first & 15) << 4 | $second & 15);
        }
    }

    return $bytes;
}

/** Big-endian, of 16 or 24 bits; twenty bits stand in the upper ones of 24. */
function plainBytes(array $frames, int $bits): string
{
    return implode('', array_map(fn (int $number): string => $bits === 16 ? pack('n', $number & 0xFFFF)
        : substr(pack('N', ($number << ($bits === 20 ? 4 : 0)) & 0xFFFFFF), 1), array_merge(...$frames)));
}

it('puts together the samples of video discs, of every depth and number of channels', function (int $bits, int $channels) {
    $reader = new VideoDiscPcm;
    $frames = discFrames(24, $channels, $bits);
    foreach ([48_000, 96_000, 44_100, 32_000] as $code => $rate) {
        $packet = videoDiscPacket($frames, $bits, $code);
        $audio = $reader->audio($packet);
        expect([$audio?->rate, $audio?->channels(), $audio?->bits()])->toBe([$rate, $channels, $bits === 16 ? 16 : 24])
            ->and(bin2hex($reader->samples($packet)))->toBe(bin2hex(plainBytes($frames, $bits)));
    }
    expect($reader->audio(substr($packet, 0, 6)))->toBeNull()->and($reader->audio(substr_replace($packet, "\xC0", 5, 1)))->toBeNull();
})->with([16, 20, 24])->with([1, 2, 3, 4, 5, 6, 8]);

it('leaves out the channel that fills up an odd number on high-definition discs',
    function (int $assignment, string $layout, int $channels) {
        $reader = new DiscPcm;
        foreach ([16 => 1, 20 => 2, 24 => 3] as $bits => $depthCode) {
            $frames = discFrames(10, $channels, $bits);
            $filled = $channels % 2 === 0 ? $frames : array_map(fn (array $frame): array => [...$frame, 0], $frames);
            foreach ([1 => 48_000, 4 => 96_000, 5 => 192_000] as $code => $rate) {
                $packet = "\x03\xC0".chr($assignment << 4 | $code).chr($depthCode << 6).plainBytes($filled, $bits);
                $audio = $reader->audio($packet);
                expect([$audio?->rate, $audio?->layout->name(), $audio?->bits()])->toBe([$rate, $layout, $bits === 16 ? 16 : 24])
                    ->and(bin2hex($reader->samples($packet)))->toBe(bin2hex(plainBytes($frames, $bits)));
            }
        }
        expect($reader->audio("\x03\xC0".chr($assignment << 4 | 2)."\x40"))->toBeNull()->and($reader->audio("\x03\xC0\x21\x40"))->toBeNull()
            ->and($reader->audio("\x03\xC0\x31"))->toBeNull();
    })->with([[1, 'mono', 1], [3, 'stereo', 2], [4, 'L R C', 3], [5, 'L R Cs', 3], [6, 'L R C Cs', 4], [7, 'L R Ls Rs', 4],
        [8, 'L R C Ls Rs', 5], [9, '5.1', 6]]);

it('decodes the sound of a video disc from its program stream', function (int $bits, int $rateCode, int $rate) {
    $frames = discFrames(4000, 2, $bits);
    $pack = "\0\0\1\xBA\x44\0\4\0\4\1\0\0\x03\xF8";
    $bytes = '';
    foreach (array_chunk($frames, 400) as $number => $some) {
        $body = "\x81\x80\x05".TimeStamp::of(2, 9000 + intdiv(400 * 90_000 * $number, $rate)).videoDiscPacket($some, $bits, $rateCode);
        $bytes .= $pack."\0\0\1\xBD".pack('n', strlen($body)).$body;
    }
    $path = Scratch::write('disc.vob', $bytes."\0\0\1\xB9");
    $decoded = Signal::decodeFile($path);
    $scale = 1 << ($bits - 1);
    expect(Reader::read($path)->sound()[0]->sound->rate)->toBe($rate)->and(count($decoded))->toBe(2)
        ->and($decoded[0])->toBe(array_map(fn (array $frame): float => $frame[0] / $scale, $frames))
        ->and($decoded[1])->toBe(array_map(fn (array $frame): float => $frame[1] / $scale, $frames));
})->with([[16, 0, 48_000], [20, 1, 96_000], [24, 0, 48_000]]);

it('decodes the sound of a high-definition disc from its transport stream', function (int $channels, int $assignment) {
    $frames = discFrames(2000, $channels, 24);
    $filled = $channels % 2 === 0 ? $frames : array_map(fn (array $frame): array => [...$frame, 0], $frames);
    $sink = new MemorySink;
    $writer = new TransportWriter($sink, [[0x80, 'eng', '']], 192, "\x05\x04HDMV");
    foreach (array_chunk($filled, 240) as $number => $some) {
        $writer->write(0, pack('n', strlen($plain = plainBytes($some, 24))).chr($assignment << 4 | 1)."\xC0".$plain, 9000 + 450 * $number);
    }
    $decoded = Signal::decodeFile(Scratch::write('disc.m2ts', $sink->bytes()));
    expect(count($decoded))->toBe($channels);
    foreach ($decoded as $channel => $samples) {
        // Decoded in the order of WAV: low frequencies stand before the sides.
        $place = $channels === 6 ? [0, 1, 2, 5, 3, 4][$channel] : $channel;
        expect($samples)->toBe(array_map(fn (array $frame): float => $frame[$place] / (1 << 23), $frames));
    }
})->with([[2, 3], [3, 4], [6, 9]]);

it('reads the heads of packets, old and new', function (string $more, ?array $expected) {
    expect(Pes::header("\0\0\1\xC0\0\x20".$more))->toBe($expected);
})->with([
    'no time' => ["\x80\0\0data", [9, null, null]], 'one time' => ["\x80\x80\x05".TimeStamp::of(2, 123_456).'data', [14, 123_456, null]],
    'both times' => ["\x80\xC0\x0A".TimeStamp::of(3, 8_589_934_591).TimeStamp::of(1, 5).'data', [19, 8_589_934_591, 5]],
    'stuffing behind the times' => ["\x80\x80\x08".TimeStamp::of(2, 90_000)."\xFF\xFF\xFFdata", [17, 90_000, null]],
    'old, no time' => ["\x0Fdata and more of it", [7, null, null]],
    'old, one time' => [TimeStamp::of(2, 77).'data and more', [11, 77, null]],
    'old, both times' => [TimeStamp::of(3, 77).TimeStamp::of(1, 70).'data and more', [16, 77, 70]],
    'old, stuffing' => ["\xFF\xFF\xFF".TimeStamp::of(2, 77).'data and more', [14, 77, null]],
    'old, size of the buffer' => ["\xFF\x60\x20".TimeStamp::of(3, 77).TimeStamp::of(1, 70).'data and', [19, 77, 70]],
    'too short' => ["\x80", null], 'old, too short' => ["\x0Fdata", null],
]);

it('finds its way in an old program stream, and past what is damaged in it', function (string $junk) {
    [, $packets] = Signal::encode(new AudioFormat(Codec::Mp2, 44_100, Layout::stereo()), RateControl::exactly(192),
        [Signal::sweep(60_000), Signal::sweep(60_000)]);
    $bytes = "\0\0\1\xBA\x21\0\1\0\1\x80\0\1\0\0\1\xBB\0\x09\x80\0\1\4\xE1\xFF\xC0\xC0\x20";
    foreach ($packets as $number => $packet) {
        $body = ($number % 3 === 0 ? "\xFF\xFF\x60\x20".TimeStamp::of(2, 90_000 + intdiv($packet->start * 90_000, 44_100))
            : "\x0F").$packet->data;
        $bytes .= ($number === 20 ? $junk : '')."\0\0\1\xC0".pack('n', strlen($body)).$body;
    }
    $path = Scratch::write('old.mpg', $bytes."\0\0\1\xB9");
    $track = Reader::read($path)->sound()[0];
    expect($track->sound->codec)->toBe(Codec::Mp2)->and($track->timeline->coded)->toBe(1152 * count($packets))
        ->and(Signal::packetsOf($path))
        ->toBe(hash('xxh128', implode('', array_map(fn (Packet $packet): string => $packet->data, $packets))));
})->with(['whole' => '', 'filled up' => [str_repeat("\0", 5000)], 'text between' => ['Wrenfield'.str_repeat('x', 999)],
    'a start code of a picture that leads nowhere' => ["\0\0\1\0\x12\x34".str_repeat("\xAA", 70)],
    'padding' => ["\0\0\1\xBE\0\x20".str_repeat("\xFF", 32)]]);

it('finds no sound in a program stream that holds none', function () {
    expect(fn () => Reader::read(Scratch::write('x.mpg',
        "\0\0\1\xBA\x21\0\1\0\1\x80\0\1".str_repeat("\0\0\1\xBE\0\x08\xFF\xFF\xFF\xFF\xFF\xFF\xFF\xFF", 40))))
        ->toThrow(NoTracks::class);
});
