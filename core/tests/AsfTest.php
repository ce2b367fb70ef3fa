<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\MpegAudio\InfoHeader;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Asf;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Video;

function windowsMedia(): string
{
    return Asf::format(0x161, 2, 44100, 16000, 1486, 16, "\0\x88\0\0\x0F\0\0\0\0\0");
}

/** @return list<array{int, string}> */
function windowsMediaObjects(int $count): array
{
    return array_map(fn (int $index): array => [(int) round($index * 92.88), str_repeat(chr($index % 251), 1486)], range(0, $count - 1));
}

it('names Windows Media with its facts and tags, and keeps it in Matroska byte for byte', function (bool $unfinished) {
    $objects = windowsMediaObjects(200);
    $path = Scratch::write('tour.wma', Asf::file(windowsMedia(), $objects, title: 'Lift tour', unfinished: $unfinished));
    $reading = Reader::read($path);
    $track = $reading->sound()[0];
    $samples = (int) round($objects[199][0] * 44.1) + (int) round(93 * 44.1);
    expect([$reading->container, CodecModules::describe($track->sound), $track->sound->rate, $track->sound->channels(), $track->timeline
        ->samples(),
        $track->timeline->startOffset])
        ->toBe(['asf', 'Windows Media Audio 2', 44100, 2, $samples, 0])
        ->and($reading->tags->values())->toBe(['title' => 'Lift tour'])
        ->and(Signal::packetsOf($path))->toBe(hash('xxh128', implode('', array_column($objects, 1))));
    $kept = (new Maker)->make(Planning::plan($reading, Spec::sound(Outputs::named('mka'), RateControl::none(), Scratch::folder())), 'kept');
    $again = Reader::read((string) $kept->path);
    expect($kept->plan->sounds[0]->action->value)->toBe('kept')
        ->and(Signal::packetsOf((string) $kept->path))->toBe(Signal::packetsOf($path))
        ->and([$again->container, CodecModules::describe($again->sound()[0]->sound), $again->sound()[0]->timeline->samples(),
            $again->sound()[0]->sound->config])
        ->toBe(['mkv', 'Windows Media Audio 2', $samples, windowsMedia()])
        ->and($again->tags->values())->toBe(['title' => 'Lift tour']);
})->with([false, true]);

it('says in one sentence why Windows Media cannot be remade', function () {
    $path = Scratch::write('tour.wma', Asf::file(windowsMedia(), windowsMediaObjects(20)));
    expect(fn () => Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder())))
        ->toThrow('Windows Media Audio 2');
});

it('decodes what it can of sound in ASF: uncompressed, spread over blocks, in objects of any size', function (int $span, int $objectBytes) {
    $channels = [Signal::steps(30_000, 1), Signal::steps(30_000, 2)];
    $wave = Signal::wave($channels, SampleFormat::signed(16), 48000);
    $sound = substr($wave, strlen($wave) - 120_000);
    $objects = [];
    foreach (str_split($sound, $objectBytes) as $index => $bytes) {
        $pieces = str_split($bytes, 40);
        $each = intdiv(count($pieces), $span);
        $spread = '';
        for ($piece = 0; $piece < $each; $piece++) {
            for ($block = 0; $block < $span; $block++) {
                $spread .= $pieces[$block * $each + $piece];
            }
        }
        $objects[] = [intdiv($index * $objectBytes, 192), $span > 1 ? $spread : $bytes];
    }
    $path = Scratch::write('plain.asf', Asf::file(Asf::format(1, 2, 48000, 192000, 4, 16), $objects, 1024, 0, $span, 40));
    expect(Reader::read($path)->sound()[0]->timeline->samples())->toBe(30_000)
        ->and(Signal::decodeFile($path) === Signal::decodeFile(Scratch::write('plain.wav', $wave)))->toBeTrue();
})->with([[1, 5000], [1, 40], [3, 1200]]);

it('finds MPEG audio frames in ASF wherever its objects end', function () {
    $mp3 = Signal::mp3([Signal::sweep(48_000)], RateControl::exactly(64));
    $frames = substr($mp3, InfoHeader::frameBytes(48000, 1));
    $objects = array_map(fn (string $bytes, int $index): array => [intdiv($index * 500, 8), $bytes], str_split($frames, 500),
        array_keys(str_split($frames, 500)));
    $path = Scratch::write('frames.asf', Asf::file(Asf::format(0x55, 1, 48000, 8000, 1, 0, str_repeat("\0", 12)), $objects));
    $bare = Scratch::write('bare.mp3', $frames);
    expect(Signal::packetsOf($path))->toBe(Signal::packetsOf($bare))
        ->and(Reader::read($path)->sound()[0]->timeline->samples())->toBe(Reader::read($bare)->sound()[0]->timeline->samples());
});

it('reads payloads that hold several small objects at once', function () {
    $sound = Signal::wave([Signal::steps(600, 3)], SampleFormat::signed(16), 8000);
    $bytes = substr($sound, -1200);
    $whole = Asf::file(Asf::format(1, 1, 8000, 16000, 2, 16), [[0, $bytes]], 4096, 0);
    $body = '';
    foreach (str_split($bytes, 200) as $piece) {
        $body .= chr(200).$piece;
    }
    // One payload, no correction data, two bytes of padding length; the place is the time, one byte says the step
    $packet = chr(0x10).chr(0x5D).pack('vVv', 0, 0, 0).chr(0x83)."\0".pack('V', 0).chr(1).chr(13).$body;
    $padding = 4096 - strlen($packet);
    $packet = substr_replace($packet, pack('v', $padding), 2, 2).str_repeat("\0", $padding);
    $file = substr($whole, 0, -4096).$packet;
    expect(Signal::decodeFile(Scratch::write('small.asf', $file)) === Signal::decodeFile(Scratch::write('whole.asf', $whole)))->toBeTrue()
        ->and(Containers::open(new MemoryBytes($file))->tracks()[0]->timeline->samples())->toBe(600);
});

it('keeps Windows Media from AVI and WAV as well', function (string $container) {
    $data = implode('', array_column(windowsMediaObjects(50), 1));
    if ($container === 'wav') {
        $body = 'WAVEfmt '.pack('V', strlen(windowsMedia())).windowsMedia().'data'.pack('V', strlen($data)).$data;
        $path = Scratch::write('wm.wav', 'RIFF'.pack('V', strlen($body)).$body);
    } else {
        $audio = new AudioFormat(Codec::WindowsMedia, 44100, Layout::stereo(), null, windowsMedia());
        $path = Scratch::write('wm.avi', Video::of('avi', $audio, [new Packet($data, 0, 204_800)], 0, 204_800));
    }
    $reading = Reader::read($path);
    $kept = (new Maker)->make(Planning::plan($reading, Spec::sound(Outputs::named('mka'), RateControl::none(), Scratch::folder())), 'kept');
    expect($reading->sound()[0]->timeline->samples())->toBe(intdiv(strlen($data) * 44100, 16000))
        ->and(Signal::packetsOf((string) $kept->path))->toBe(hash('xxh128', $data))
        ->and(Reader::read((string) $kept->path)->sound()[0]->timeline->samples())
        ->toEqualWithDelta(intdiv(strlen($data) * 44100, 16000), 90);
})->with(['wav', 'avi']);
