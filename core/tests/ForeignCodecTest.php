<?php

declare(strict_types=1);

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\MpegAudio\InfoHeader;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\Codec;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\ForeignEncoders;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/**
 * How much of a frequency there is in a signal.
 *
 * @param  list<float>  $samples
 */
function amountOf(array $samples, float $hertz, int $rate): float
{
    $real = 0.0;
    $imaginary = 0.0;
    foreach ($samples as $index => $sample) {
        $real += $sample * cos(2 * M_PI * $hertz * $index / $rate);
        $imaginary += $sample * sin(2 * M_PI * $hertz * $index / $rate);
    }

    return hypot($real, $imaginary) / count($samples);
}

it('decodes AC-3, each line on the channel it was put on', function () {
    $path = Scratch::write('a.ac3', str_repeat(ForeignEncoders::ac3([10, 30]), 20));
    $reading = Reader::read($path);
    $decoded = Signal::decodeFile($path);
    expect($reading->sound()[0]->sound->layout->name())->toBe('stereo')
        ->and($reading->sound()[0]->timeline->samples())->toBe(20 * 1536)
        ->and(count($decoded[0]))->toBe(20 * 1536);
    // The lines of a transform of 512 samples stand (n + ½) × rate / 512 apart.
    foreach ([[0, 10, 30], [1, 30, 10]] as [$channel, $own, $other]) {
        $part = array_slice($decoded[$channel], 3000, 20_000);
        expect(amountOf($part, ($own + 0.5) * 48000 / 512, 48000))
            ->toBeGreaterThan(4 * amountOf($part, ($other + 0.5) * 48000 / 512, 48000))
            ->and(max($part))->toBeGreaterThan(0.05);
    }
    expect(Reader::read(Scratch::write('m.ac3', str_repeat(ForeignEncoders::ac3([20]), 4)))
        ->sound()[0]->sound->layout->name())->toBe('mono');
});

it('keeps AC-3 frames byte for byte', function () {
    $bytes = str_repeat(ForeignEncoders::ac3([10, 30]), 20);
    $path = Scratch::write('a.ac3', $bytes);
    foreach (['ac3', 'mka'] as $format) {
        $kept = (new Maker)
            ->make(Planning::plan(Reader::read($path),
                Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'kept');
        expect($kept->plan->sounds[0]->action->value)->toBe('kept')->and(Signal::packetsOf((string) $kept->path))
            ->toBe(hash('xxh128', $bytes));
    }
});

it('decodes AMR that another party encoded', function () {
    $sweep = Signal::sine(16_000, 400, 8000, 0.4);
    $path = Scratch::write('memo.amr', ForeignEncoders::amr($sweep));
    $track = Reader::read($path)->sound()[0];
    $decoded = Signal::decodeFile($path)[0];
    expect([$track->sound->codec, $track->sound->rate, $track->timeline->samples()])->toBe([Codec::AmrNarrow, 8000, 16_000])
        ->and(amountOf(array_slice($decoded, 2000, 12_000), 400, 8000))->toEqualWithDelta(0.2, 0.06)
        ->and(amountOf(array_slice($decoded, 2000, 12_000), 900, 8000))->toBeLessThan(0.02);
});

it('decodes Speex that another party encoded', function () {
    $path = Scratch::write('memo.spx', ForeignEncoders::speex(Signal::sine(32_000, 500, 16000, 0.4)));
    $track = Reader::read($path)->sound()[0];
    $decoded = Signal::decodeFile($path)[0];
    expect([$track->sound->codec, $track->sound->rate, $track->timeline->samples()])->toBe([Codec::Speex, 16000, 32_000])
        ->and(amountOf(array_slice($decoded, 2000, 28_000), 500, 16000))->toEqualWithDelta(0.2, 0.06)
        ->and(amountOf(array_slice($decoded, 2000, 28_000), 1300, 16000))->toBeLessThan(0.02);
});

it('reads MP3 of free format as the library decodes it, and keeps its frames byte for byte', function () {
    $bytes = ForeignEncoders::freeMp3(Signal::sine(66_150, 500, 44100, 0.4), 400);
    $path = Scratch::write('free.mp3', $bytes);
    $reading = Reader::read($path);
    $track = $reading->sound()[0];
    $decoded = Signal::decodeFile($path)[0];
    $frames = intdiv($track->timeline->samples(), 1152);
    expect([$reading->container, CodecModules::describe($track->sound), $track->sound->rate, $track->timeline->samples() % 1152])
        ->toBe(['mp3', 'MP3, free format', 44100, 0])
        ->and(strlen($bytes) / $frames)->toEqualWithDelta(1152 * 50_000 / 44100, 1.0)
        ->and($frames * 1152)->toBeGreaterThan(66_150)
        ->and(amountOf(array_slice($decoded, 4410, 44_100), 500, 44100))->toEqualWithDelta(0.2, 0.01);
    foreach (['mp3', 'mka'] as $format) {
        $kept = (new Maker)
            ->make(Planning::plan($reading, Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'kept');
        expect($kept->plan->sounds[0]->action->value)->toBe('kept')->and(Signal::packetsOf((string) $kept->path))
            ->toBe(Signal::packetsOf($path));
    }
});

it('decodes the same from a stream whose bit rate is not stated as from one where it is', function (RateControl $rateControl,
    string $junk) {
    $stated = Signal::mp3([Signal::sweep(60_000), Signal::sweep(60_000, 0.2)], $rateControl);
    $first = strlen($stated) > 0 ? InfoHeader::frameBytes(48000, 2) : 0;
    $frames = substr($stated, $first);
    $free = $frames;
    for ($at = 0; $at + 4 <= strlen($free); $at += FrameHeader::parse(substr($frames, $at, 4))->bytes) {
        $free[$at + 2] = chr(ord($free[$at + 2]) & 0x0F);
    }
    // With an info frame before it, delay and padding are known.
    foreach (['', substr($stated, 0, $first)] as $before) {
        $a = Scratch::write('stated.mp3', $before.$frames);
        $b = Scratch::write('free.mp3', $junk.$before.$free);
        expect(Reader::read($b)->sound()[0]->timeline->samples())->toBe(Reader::read($a)->sound()[0]->timeline->samples())
            ->and(Signal::decodeFile($b) === Signal::decodeFile($a))->toBeTrue();
    }
})->with([[RateControl::exactly(128), ''], [RateControl::exactly(320), "\xFF\xFB\x00\x00 junk before \xFF\xFB\x04"]]);
