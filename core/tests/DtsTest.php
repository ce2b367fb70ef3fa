<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Dts\DtsFrameParser;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\Codec;
use Octavox\Core\Plan\Action;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Testing\TransportWriter;
use Octavox\Core\Tests\Support\ForeignEncoders;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A core frame, written bit by bit after ETSI TS 102 114, 5.3.1, with a payload that no decoder will ever see. */
function dtsFrame(int $mode, int $rate, int $low = 0, int $bytes = 512, int $blocks = 15, int $number = 0): string
{
    $bits = sprintf('%032b%b%05b%b%07b%014b%06b%04b%05b%b%b%b%b%b%03b%b%b%02b', 0x7FFE8001, 1, 31, 0, $blocks, $bytes - 1, $mode, $rate, 15,
        0, 0, 0, 0, 0, 0, 0, 0, $low);
    $bits = str_pad($bits, (int) ceil(strlen($bits) / 8) * 8, '0');

    return str_pad(implode('', array_map(fn (string $byte): string => chr((int) bindec($byte)), str_split($bits, 8))), $bytes,
        chr(65 + $number % 26));
}

/** @return list<string> */
function dtsFrames(int $count): array
{
    return array_map(fn (int $number): string => ForeignEncoders::dts(9, [3 + $number % 4, 8, 13, 18, 23], true), range(0, $count - 1));
}

it('reads of every frame its length, rate and channels', function (int $mode, string $layout, int $channels) {
    $parser = new DtsFrameParser;
    foreach ([1 => 8000, 2 => 16_000, 3 => 32_000, 6 => 11_025, 7 => 22_050, 8 => 44_100, 11 => 12_000, 12 => 24_000,
        13 => 48_000] as $code => $rate) {
        foreach ([[0, 0], [1, 1], [2, 1]] as [$low, $more]) {
            foreach ([[96, 5], [1006, 15], [16_384, 127]] as [$bytes, $blocks]) {
                $frame = dtsFrame($mode, $code, $low, $bytes, $blocks);
                $audio = $parser->audio($frame);
                $info = $parser->at(substr($frame, 0, $parser->headBytes()));
                if ([$info?->bytes, $info?->samples, $audio->rate, $audio->channels()] !== [$bytes, 32 * ($blocks + 1), $rate,
                    $channels + $more]) {
                    expect([$info?->bytes, $info?->samples, $audio->rate, $audio->channels()])
                        ->toBe([$bytes, 32 * ($blocks + 1), $rate, $channels + $more]);
                }
            }
        }
    }
    expect($parser->audio(dtsFrame($mode, 13))->layout->name())->toBe($layout)->and($parser->audio($frame)->codec)->toBe(Codec::Dts);
})->with([
    [0, 'mono', 1], [1, 'stereo', 2], [2, 'stereo', 2], [3, 'stereo', 2], [4, 'stereo', 2], [5, 'C L R', 3], [6, 'L R Cs', 3],
    [7, 'C L R Cs', 4], [8, 'L R Ls Rs', 4],
    [9, 'C L R Ls Rs', 5], [10, '6 channels', 6], [11, '6 channels', 6], [12, '6 channels', 6], [13, '7 channels', 7],
    [14, '8 channels', 8], [15, '8 channels', 8],
]);

it('takes nothing else for a frame', function (string $bytes) {
    expect((new DtsFrameParser)->at($bytes))->toBeNull();
})->with([
    'too short' => [fn () => substr(dtsFrame(2, 13), 0, 11)],
    'another sync word' => [fn () => "\x7F\xFE\x80\x02".substr(dtsFrame(2, 13), 4)],
    'a rate that is reserved' => [fn () => dtsFrame(2, 4)], 'fewer bytes than a frame has' => [fn () => dtsFrame(2, 13, 0, 95)],
    'fewer blocks than a frame has' => [fn () => dtsFrame(2, 13, 0, 512, 4)],
    'words of fourteen bits' => ["\x1F\xFF\xE8\x00\x07\xF0\xFC\x40\x12\x00\x00\x00"],
]);

it('keeps the frames as they are, whatever carries them', function (string $from, string $to) {
    $frames = dtsFrames(40);
    $sink = new MemorySink;
    $writer = new TransportWriter($sink, [match ($from) {
        'a type of high-definition discs' => [0x82, 'eng', ''], 'another type of these' => [0x86, 'eng', ''],
        'a descriptor of broadcasting' => [0x06, 'eng', "\x7B\x01\x00"], default => [0x06, 'eng', "\x05\x04DTS1"],
    }]);
    foreach ($frames as $number => $frame) {
        $writer->write(0, $frame, 9000 + 960 * $number);
    }
    $path = $from === 'frames alone' ? Scratch::write('sound.dts', implode('', $frames)) : Scratch::write('sound.ts', $sink->bytes());
    $reading = Reader::read($path);
    $sound = $reading->sound()[0]->sound;
    expect([$sound->codec, $sound->rate, $sound->layout->name(), $reading->sound()[0]->timeline->samples()])
        ->toBe([Codec::Dts, 48_000, '5.1', 40 * 512]);
    $plan = Planning::plan($reading, Spec::sound(Outputs::named($to), RateControl::none(), Scratch::folder()));
    $made = (new Maker)->make($plan, 'dts');
    $again = Reader::read($made->path)->sound()[0];
    expect($plan->sounds[0]->action)->toBe(Action::Kept)->and(Signal::packetsOf($made->path))->toBe(hash('xxh128', implode('', $frames)))
        ->and([$again->sound->codec, $again->sound->layout->name(), $again->timeline->samples()])->toBe([Codec::Dts, '5.1', 40 * 512]);
    expect($to === 'dts' ? file_get_contents($made->path) === implode('', $frames) : null)->toBe($to === 'dts' ? true : null);
})->with(['frames alone', 'a type of high-definition discs', 'another type of these', 'a descriptor of broadcasting', 'a registration'])
    ->with(['dts', 'mka']);

it('cuts at the borders of its frames', function (string $pieces, int $from, int $until) {
    $frames = dtsFrames(60);
    $path = Scratch::write('sound.dts', implode('', $frames));
    $plan = fn (Reading $reading): mixed => Planning::plan($reading,
        Spec::sound(Outputs::named('dts'), RateControl::none(), Scratch::folder(),
            shaping: Spec::shaping(pieces: $pieces)));
    $made = (new Maker)->make($plan(Reader::read($path)), 'cut');
    expect(file_get_contents($made->path))->toBe(implode('', array_slice($frames, $from, $until - $from)));
})->with([['512#-5120#', 1, 10], ['0-10240#', 0, 20], ['25600#-end', 50, 60]]);

/** The strongest of the frequencies in the midst of the 32 bands. @param  list<float>  $samples */
function loudestBand(array $samples, int $from): int
{
    $found = [0.0, -1];
    for ($band = 0; $band < 32; $band++) {
        [$real, $imaginary] = [0.0, 0.0];
        for ($index = 0; $index < 2048; $index++) {
            $turn = 2 * M_PI * 750 * ($band + 0.5) * $index / 48_000;
            $real += $samples[$from + $index] * cos($turn);
            $imaginary += $samples[$from + $index] * sin($turn);
        }
        $found = max($found, [$real ** 2 + $imaginary ** 2, $band]);
    }

    return $found[0] < 0.01 ? -1 : $found[1];
}

it('decodes every arrangement of channels, each tone where it belongs', function (int $mode, array $bands, bool $low, array $expected) {
    $path = Scratch::write('sound.dts', str_repeat(ForeignEncoders::dts($mode, $bands, $low), 40));
    $made = (new Maker)->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named('flac'), RateControl::none(),
        Scratch::folder())), 'dts');
    $channels = Signal::decodeFile($made->path);
    expect(count($channels[0]))->toBe(40 * 512)
        ->and(array_map(fn (array $samples): int => loudestBand($samples, 8192), $channels))->toBe($expected)
        ->and(max(array_map(abs(...), $channels[0])))->toBeGreaterThan(0.03);
})->with([
    'mono' => [0, [5], false, [5]], 'stereo' => [2, [3, 9], false, [3, 9]],
    // Frames have the centre first and low frequencies last; files have them in the order of the WAV mask.
    '3.0' => [5, [4, 9, 14], false, [9, 14, 4]],
    '5.0' => [9, [3, 8, 13, 18, 23], false, [8, 13, 3, 18, 23]],
    '5.1' => [9, [3, 8, 13, 18, 23], true, [8, 13, 3, -1, 18, 23]],
]);

it('puts silence where frames are damaged, and leaves alone what the library does not know', function () {
    $frames = array_fill(0, 60, ForeignEncoders::dts(2, [3, 9]));
    $frames[30] = substr($frames[30], 0, 12).str_repeat("\xFF", 2036);
    $path = Scratch::write('sound.dts', implode('', $frames));
    $into = Scratch::folder();
    [$status, $said] = octavox('make', $path, '--into', $into, '--format', 'wav', '--json');
    expect($status)->toBe(0)->and($said['results'][0]['samples'])->toBe(60 * 512);
    $channels = Signal::decodeFile($said['results'][0]['path']);
    expect(loudestBand($channels[0], 8192))->toBe(3)->and(loudestBand($channels[1], 50 * 512))->toBe(9);
    $wide = Scratch::write('wide.dts', str_repeat(dtsFrame(10, 13), 20));
    expect(fn () => Planning::plan(Reader::read($wide), Spec::sound(Outputs::named('wav'), RateControl::none(), '/x')))
        ->toThrow(CodecNotDecodable::class, 'DTS');
});
