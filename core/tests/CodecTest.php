<?php

declare(strict_types=1);

use Octavox\Core\Codec\Aac\AacDecoder;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Alac\AlacDecoder;
use Octavox\Core\Codec\Alac\AlacFile;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\ReplicatedAac;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/**
 * @param  list<Packet>  $packets
 * @return list<list<float>>
 */
function decodeAll(AudioFormat $audio, array $packets): array
{
    $decoder = Codecs::decoder($audio);
    $result = array_fill(0, $audio->channels(), []);
    $add = function ($block) use (&$result): void {
        foreach ($block->toChannels() as $channel => $samples) {
            $result[$channel] = [...$result[$channel], ...$samples];
        }
    };
    foreach ($packets as $packet) {
        if (($block = $decoder->decode($packet)) !== null) {
            $add($block);
        }
    }
    while (($block = $decoder->finish()) !== null) {
        $add($block);
    }

    return $result;
}

it('decodes AAC with every sample in its place', function (int $channels) {
    $sounds = [Signal::sweep(30000), Signal::sweep(30000, 0.3, 0.00002)];
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::undeclared($channels)), RateControl::exactly(192),
        array_slice($sounds, 0, $channels));
    $decoded = decodeAll($encoder->audio(), $packets);
    expect($decoded)->toHaveCount($channels);
    foreach ($decoded as $channel => $samples) {
        expect(count($samples))->toBe(count($packets) * 1024)
            ->and(count($samples) - $encoder->delay())->toBeGreaterThanOrEqual(30000)
            ->and(Signal::difference($sounds[$channel], array_slice($samples, $encoder->delay(), 30000), 3000, 28000))->toBeLessThan(-35.0);
    }
})->with([1, 2]);

it('tells HE-AAC and HE-AAC v2 that are not announced by decoding the first packets',
    function (bool $stereo, string $label, int $channels) {
        [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 24000, Layout::mono()), RateControl::exactly(32),
            [Signal::sweep(30000)]);
        $packets = ReplicatedAac::of($packets, $stereo);
        $audio = AacDecoder::probeSbr($encoder->audio(), array_slice($packets, 0, 3));
        $decoded = decodeAll($audio, $packets);
        expect($audio->rate)->toBe(48000)->and($audio->frameLength)->toBe(2048)->and(CodecModules::describe($audio))->toBe($label)
            ->and($audio->channels())->toBe($channels)
            ->and($decoded)->toHaveCount($channels)
            ->and(count($decoded[0]))->toBe(count($packets) * 2048)
            ->and(max(array_map(abs(...), array_slice($decoded[0], 8000, 20000))))->toBeGreaterThan(0.1);
    })->with([[false, 'HE-AAC', 1], [true, 'HE-AAC v2', 2]]);

it('reads what AAC set-up bytes announce', function (string $hex, string $label, int $rate, string $layout, int $frame) {
    $audio = AudioSpecificConfig::parse((string) hex2bin($hex))->audio();
    expect([CodecModules::describe($audio), $audio->rate, $audio->layout->name(), $audio->frameLength])->toBe([$label, $rate, $layout,
        $frame]);
})->with([
    ['1190', 'AAC-LC', 48000, 'stereo', 1024],
    ['1208', 'AAC-LC', 44100, 'mono', 1024],
    ['11b0', 'AAC-LC', 48000, '5.1', 1024],
    ['2b098800', 'HE-AAC', 48000, 'mono', 2048],
    ['eb098800', 'HE-AAC v2', 48000, 'stereo', 2048],
    ['131056e598', 'HE-AAC', 48000, 'stereo', 2048],
    ['13081456e5a54880', 'AAC-LC', 24000, 'mono', 1024],
    ['1194', 'AAC-LC', 48000, 'stereo', 960],
]);

it('replaces a damaged AAC packet by silence of its length and gives up on a damaged track', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::exactly(128),
        [Signal::sweep(40000), Signal::sweep(40000)]);
    $one = $packets;
    $one[20] = new Packet(str_repeat("\xFF", 60), $packets[20]->start, 1024);
    expect(count(decodeAll($encoder->audio(), $one)[0]))->toBe(count($packets) * 1024)
        ->and(fn () => decodeAll($encoder->audio(),
            array_map(fn (Packet $packet): Packet => new Packet(str_repeat("\xFF", 60), $packet->start, 1024), $packets)))
        ->toThrow(PacketUndecodable::class, 'damaged');
});

it('encodes MP3 that comes back in its place, at its level, in its length', function (int $rate, int $channels, RateControl $rateControl) {
    $sounds = [Signal::sweep(40000, 0.4, 0.000005), Signal::sweep(40000, 0.3, 0.000008)];
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Mp3, $rate, Layout::undeclared($channels)), $rateControl,
        array_slice($sounds, 0, $channels));
    $decoded = decodeAll($encoder->audio(), $packets);
    $total = array_sum(array_map(fn (Packet $packet): int => $packet->length, $packets));
    expect($total - $encoder->delay())->toBeGreaterThanOrEqual(38000);
    foreach ($decoded as $channel => $samples) {
        expect(count($samples))->toBe($total)
            ->and(Signal::difference($sounds[$channel], array_slice($samples, $encoder->delay(), 38000), 2000, 36000))->toBeLessThan(-25.0);
    }
})->with([
    [48000, 2, RateControl::exactly(192)], [44100, 1, RateControl::exactly(128)], [22050, 2, RateControl::exactly(96)],
    [8000, 1, RateControl::exactly(32)], [48000, 2, RateControl::variable(2)],
]);

it('understands frame headers of all three layers and versions', function (string $hex, ?array $facts) {
    $header = FrameHeader::parse((string) hex2bin($hex));
    expect($header === null ? null : [$header->layer, $header->rate, $header->kbps, $header->channels, $header->bytes,
        $header->samples])->toBe($facts);
})->with([
    ['fffb9064', [3, 44100, 128, 2, 417, 1152]],
    ['fffb9264', [3, 44100, 128, 2, 418, 1152]],
    ['fff384c0', [3, 24000, 64, 1, 192, 576]],
    ['ffe348c0', [3, 8000, 32, 1, 288, 576]],
    ['fffda404', [2, 48000, 192, 2, 576, 1152]],
    ['ffffc404', [1, 48000, 384, 2, 384, 384]],
    ['fffbf064', null], ['fffb9c64', null], ['ffeb9064', null], ['00000000', null], ['fff990', null],
]);

it('refuses what encoders cannot do and codecs that nobody here decodes', function () {
    expect(fn () => Codecs::encoder(new AudioFormat(Codec::Mp3, 96000, Layout::stereo()), RateControl::exactly(192)))
        ->toThrow(EncoderRefused::class, '96,000 Hz')
        ->and(fn () => Codecs::encoder(new AudioFormat(Codec::Mp3, 48000, Layout::fiveOne()), RateControl::exactly(192)))
        ->toThrow(EncoderRefused::class, '6 channels')
        ->and(fn () => Codecs::encoder(new AudioFormat(Codec::Aac, 48000, Layout::undeclared(7)), RateControl::exactly(192)))
        ->toThrow(EncoderRefused::class)
        ->and(fn () => Codecs::decoder(new AudioFormat(Codec::Eac3, 48000, Layout::fiveOne())))
        ->toThrow(CodecNotDecodable::class, 'E-AC-3');
});

it('keeps noise that ALAC cannot compress, in any number of channels, as the library reads all of it that it reads right',
    function (int $channels) {
        mt_srand(4);
        $noise = array_map(fn (int $one): array => array_map(fn (int $index): float => (mt_rand(0, 16_777_215) - 8_388_608) / 8_388_608,
            range(1, 5000)),
            range(1, $channels));
        [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Alac, 48_000, Layout::undeclared($channels), null, '', 0, '', 24),
            RateControl::none(),
            $noise);
        $decoder = new AlacDecoder($encoder->audio());
        $samples = '';
        foreach ([...$packets, null] as $packet) {
            $samples .= ($packet === null ? $decoder->finish() : $decoder->decode($packet))?->bytes();
        }
        $wanted = '';
        for ($frame = 0; $frame < 5000; $frame++) {
            $wanted .= pack('f*', ...array_column($noise, $frame));
        }
        expect(array_sum(array_column($packets, 'length')))->toBe(5000)->and($samples === $wanted)->toBeTrue();
        // The library alone: of a pair of channels it has the second one wrong, everything else it reads as it is.
        $cookie = MagicCookie::parse($encoder->audio()->config);
        $room = new FloatBuffer(2 * 4096 * $channels);
        $given = SampleFile::headed(AlacFile::write($cookie, array_column($packets, 'data'), 5000), $channels)
            ->readGiven(5000 * $channels, $room, 0);
        $read = array_chunk(array_values(unpack('f*', $room->bytes(0, $given))), $channels);
        foreach (array_diff(range(0, $channels - 1), $channels === 2 ? [1] : [2, 4, 6]) as $channel) {
            expect(array_column($read, $channel))->toBe($noise[$channel]);
        }
    })->with([1, 2, 3, 4, 5, 6, 8]);

it('keeps channels without places in WavPack', function (int $channels, int $bits) {
    $sound = array_map(fn (int $seed): array => Signal::steps(9000, $seed), range(1, $channels));
    $wave = Scratch::write('many.wav', Signal::wave($sound, SampleFormat::signed($bits)));
    $spec = Spec::sound(Outputs::named('wavpack'), RateControl::none(), Scratch::folder());
    $made = (new Maker)->make(Planning::plan(Reader::read($wave), $spec), 'wv');
    $read = Reader::read($made->path)->sound()[0];
    expect($read->sound->channels())->toBe($channels)->and($read->timeline->samples())->toBe(9000)
        ->and(Signal::decodeFile($made->path))->toBe($sound);
})->with([3, 4, 5, 6, 7, 8])->with([16, 24]);
