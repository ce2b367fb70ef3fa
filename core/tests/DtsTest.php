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
    return array_map(fn (int $number): string => dtsFrame(9, 13, 2, 1006, 15, $number), range(0, $count - 1));
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

it('keeps sound that nobody here decodes, and says that it is not decoded', function (string $from, string $to) {
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
        ->toBe([Codec::Dts, 48_000, '5.1', 40 * 512])
        ->and(fn () => Planning::plan($reading, Spec::sound(Outputs::named('wav'), RateControl::none(), '/x')))
        ->toThrow(CodecNotDecodable::class, 'DTS');
    $plan = Planning::plan($reading, Spec::sound(Outputs::named($to), RateControl::none(), Scratch::folder()));
    $made = (new Maker)->make($plan, 'dts');
    $again = Reader::read($made->path)->sound()[0];
    expect($plan->sounds[0]->action)->toBe(Action::Kept)->and(Signal::packetsOf($made->path))->toBe(hash('xxh128', implode('', $frames)))
        ->and([$again->sound->codec, $again->sound->layout->name(), $again->timeline->samples()])->toBe([Codec::Dts, '5.1', 40 * 512]);
    expect($to === 'dts' ? file_get_contents($made->path) === implode('', $frames) : null)->toBe($to === 'dts' ? true : null);
})->with(['frames alone', 'a type of high-definition discs', 'another type of these', 'a descriptor of broadcasting', 'a registration'])
    ->with(['dts', 'mka']);

it('cuts sound that nobody here decodes at the borders of its frames', function (string $pieces, int $from, int $until) {
    $frames = dtsFrames(60);
    $path = Scratch::write('sound.dts', implode('', $frames));
    $plan = fn (Reading $reading): mixed => Planning::plan($reading,
        Spec::sound(Outputs::named('dts'), RateControl::none(), Scratch::folder(),
            shaping: Spec::shaping(pieces: $pieces)));
    $made = (new Maker)->make($plan(Reader::read($path)), 'cut');
    expect(file_get_contents($made->path))->toBe(implode('', array_slice($frames, $from, $until - $from)));
})->with([['512#-5120#', 1, 10], ['0-10240#', 0, 20], ['25600#-end', 50, 60]]);
