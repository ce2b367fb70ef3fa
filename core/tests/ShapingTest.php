<?php

declare(strict_types=1);

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Flac\FrameCrc;
use Octavox\Core\Codec\Flac\FrameHeader;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\Result;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Sound\TimePosition;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\ForeignEncoders;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Video;

/** @return list<Plan> */
function shapedPlans(string $path, string $format, SoundSpec $shaping, ?RateControl $rateControl = null): array
{
    return Planning::plans(Reader::read($path),
        Spec::sound(Outputs::named($format), $rateControl ?? RateControl::none(), Scratch::folder(), shaping: $shaping));
}

/** @return list<Result> */
function shaped(string $path, string $format, SoundSpec $shaping, ?RateControl $rateControl = null): array
{
    return array_map(fn (Plan $plan): Result => (new Maker)->make(Planning::stored($plan), bin2hex(random_bytes(4))),
        shapedPlans($path, $format, $shaping, $rateControl));
}

/** @param  list<list<float>>  $channels */
function waveFile(array $channels, int $rate = 48000, int $bits = 16, string $name = 'in.wav'): string
{
    return Scratch::write($name, Signal::wave($channels, SampleFormat::signed($bits), $rate));
}

it('sends every channel where the layout says, sample by sample', function (string $layout, array $wanted) {
    $in = [Signal::steps(3000, 1), Signal::steps(3000, 2)];
    $path = waveFile($in);
    $made = shaped($path, 'wav', Spec::shaping($layout));
    expect(count($made))->toBe(count($wanted));
    foreach ($made as $file => $delivery) {
        $out = Signal::decodeFile((string) $delivery->path);
        expect(count($out))->toBe(count($wanted[$file]));
        foreach ($wanted[$file] as $channel => $gains) {
            $exact = $gains === [0.0, 1.0] || $gains === [1.0, 0.0] || $gains === [0.0, -1.0] || $gains === [0.0, 0.0];
            foreach ($out[$channel] as $index => $sample) {
                $meant = max(-1.0, min(32767 / 32768, $gains[0] * $in[0][$index] + $gains[1] * $in[1][$index]));
                if (abs($sample - $meant) > ($exact ? 0.0 : 2.6 / 32768)) {
                    expect($sample)->toBe($meant, "$layout, file $file, channel $channel, sample $index");
                }
            }
        }
    }
})->with([
    ['split', [[[1.0, 0.0]], [[0.0, 1.0]]]],
    ['left', [[[1.0, 0.0]]]],
    ['right', [[[0.0, 1.0]]]],
    ['left-both', [[[1.0, 0.0], [1.0, 0.0]]]],
    ['right-both', [[[0.0, 1.0], [0.0, 1.0]]]],
    ['swap', [[[0.0, 1.0], [1.0, 0.0]]]],
    ['mono', [[[0.5, 0.5]]]],
    ['1,-2', [[[1.0, 0.0], [0.0, -1.0]]]],
    ['1@-6+2@-12/2,0', [[[10 ** -0.3, 10 ** -0.6]], [[0.0, 1.0], [0.0, 0.0]]]],
    ['-1+-2@-20', [[[-1.0, -0.1]]]],
]);

it('keeps sound that a layout leaves as it is', function () {
    $path = waveFile([Signal::steps(2000, 1), Signal::steps(2000, 2)]);
    foreach (['asis', 'stereo', '1,2'] as $layout) {
        expect(shapedPlans($path, 'wav', Spec::shaping($layout))[0]->isKept())->toBeTrue($layout);
    }
    expect(shapedPlans($path, 'wav', Spec::shaping('swap'))[0]->isKept())->toBeFalse();
});

it('makes 5.1 of six channels without a place, each on its own in every order', function (string $format) {
    $in = array_map(fn (int $seed): array => Signal::steps(4000, $seed), range(1, 6));
    $path = waveFile($in);
    $made = shaped($path, $format, Spec::shaping('5.1'))[0];
    $track = Reader::read((string) $made->path)->sound()[0];
    $out = Signal::decodeFile((string) $made->path);
    expect($track->sound->layout->name())->toBe('5.1');
    // Decoded in the order of the WAV mask.
    expect($out === $in)->toBeTrue();
})->with(['wav', 'flac', 'alac', 'caf']);

it('takes channels without a place in the order of WAV, wherever a format puts them, and says so', function (int $count, string $format) {
    $tones = array_map(fn (int $index): float => 400.0 + 450 * $index, range(0, $count - 1));
    $path = waveFile(array_map(fn (float $tone): array => Signal::sine(24_000, $tone, 48_000, 0.4), $tones));
    [$plan] = shapedPlans($path, $format, new SoundSpec);
    $made = shaped($path, $format, new SoundSpec)[0];
    $carried = Reader::read((string) $made->path)->sound()[0]->sound->layout;
    $isLossless = in_array($format, ['flac', 'alac'], true);
    expect($carried->isPlaced())->toBeTrue()->and($plan->warnings)->toHaveCount(1)
        ->and(PlanWords::warnings($plan)[0])->toContain("its $count channels belong")->toContain(implode(' ', $carried->inMaskOrder()
        ->names()))
        ->and(str_contains(PlanWords::warnings($plan)[0], 'low frequencies'))->toBe(! $isLossless && in_array(Channel::LowFrequency,
            $carried->channels, true));
    // Decoded in the order of the WAV mask.
    foreach (Signal::decodeFile((string) $made->path) as $channel => $samples) {
        $isLow = $carried->inMaskOrder()->channels[$channel] === Channel::LowFrequency;
        foreach ($tones as $other => $tone) {
            [$real, $imaginary] = [0.0, 0.0];
            for ($index = 0; $index < 4800; $index++) {
                $real += $samples[4800 + $index] * cos(2 * M_PI * $tone * $index / 48_000);
                $imaginary += $samples[4800 + $index] * sin(2 * M_PI * $tone * $index / 48_000);
            }
            $share = sqrt($real ** 2 + $imaginary ** 2) / 2400;
            // What an encoder leaves of it above the low frequencies is its own affair.
            $channel === $other && $isLow && ! $isLossless ? expect($share)->toBeLessThan(0.45) : ($channel !== $other ? expect($share)
                ->toBeLessThan(0.02) : expect($share)->toEqualWithDelta(0.4, 0.03));
        }
    }
})->with([[3, 'flac'], [4, 'alac'], [5, 'vorbis'], [5, 'opus'], [3, 'vorbis'], [6, 'alac'], [6, 'vorbis'], [6, 'opus'], [7, 'opus'], [8,
    'alac'],
    [8, 'flac'], [8, 'vorbis']]);

it('says nothing of places where they are known, asked for, or not told of', function () {
    $six = array_map(fn (int $seed): array => Signal::steps(2000, $seed), range(1, 6));
    $warnings = fn (string $path, string $format, SoundSpec $spec): array => shapedPlans($path, $format, $spec)[0]->warnings;
    expect($warnings(waveFile($six), 'wav', new SoundSpec))->toBe([])->and($warnings(waveFile($six), 'wavpack', new SoundSpec))->toBe([])
        ->and($warnings(waveFile($six), 'opus', Spec::shaping('5.1')))->toBe([])->and($warnings(waveFile($six), 'mp3',
            Spec::shaping('stereo')))->toBe([])
        ->and($warnings(waveFile([$six[0], $six[1]]), 'opus', new SoundSpec))->toBe([]);
});

it('folds 5.1 down by the standard coefficients, and by others that are asked for', function () {
    $in = array_fill(0, 6, array_fill(0, 1000, 0.0));
    foreach ([0.1, 0.2, 0.05, 0.3, 0.15, 0.12] as $channel => $level) {
        $in[$channel] = array_fill(0, 1000, $level);
    }
    $path = Scratch::write('five.wav', Signal::wave($in, SampleFormat::float(32)));
    $half = M_SQRT1_2;
    $most = 1 + 2 * $half;
    $standard = Signal::decodeFile((string) shaped($path, 'float', Spec::shaping('stereo'))[0]->path);
    $own = Signal::decodeFile((string) shaped($path, 'float', Spec::shaping('1+3@-3+5,2+3@-3+6+4@-10'))[0]->path);
    expect($standard[0][500])->toEqualWithDelta((0.1 + $half * 0.05 + $half * 0.15) / $most, 1e-5)
        ->and($own[0][500])->toEqualWithDelta(0.1 + 10 ** -0.15 * 0.05 + 0.15, 1e-5)
        ->and($own[1][500])->toEqualWithDelta(0.2 + 10 ** -0.15 * 0.05 + 0.12 + 10 ** -0.5 * 0.3, 1e-5);
});

it('names what it splits after its labels, or after the channels', function () {
    $path = waveFile([Signal::steps(500, 1), Signal::steps(500, 2)], name: 'interview.wav');
    $names = fn (SoundSpec $wish): array => array_map(fn (Plan $plan): string => $plan->name(), shapedPlans($path, 'wav', $wish));
    expect($names(Spec::shaping('split')))->toBe(['interview L.wav', 'interview R.wav'])
        ->and($names(Spec::shaping('split', ['lav', 'boom'])))->toBe(['interview lav.wav', 'interview boom.wav'])
        ->and($names(Spec::shaping('2', ['lav', 'boom'])))->toBe(['interview.wav'])
        ->and($names(Spec::shaping('split', ['a/b', ''])))->toBe(['interview a-b.wav', 'interview R.wav'])
        ->and(array_map(fn (Plan $plan): string => $plan->name(),
            Planning::plans(Reader::read($path),
                Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(),
                    name: new Octavox\Core\Name\NamePattern('{label} of {stem}'), shaping: Spec::shaping('split', ['lav', 'boom'])))))
        ->toBe(['lav of interview.wav', 'boom of interview.wav']);
});

it('says in one sentence what of a channel map does not fit', function (string $layout, int $channels, string $says) {
    $path = waveFile(array_map(fn (int $seed): array => Signal::steps(100, $seed), range(1, $channels)));
    expect(fn () => shapedPlans($path, 'wav', Spec::shaping($layout)))->toThrow(Failure::class, $says);
})->with([
    ['5.1', 1, 'needs 6 channels, but the sound has one'], ['swap', 1, 'needs 2 channels'], ['1/3', 2, 'asks for channel 3'],
    ['left+', 2, 'cannot be read'],
    ['1@99', 2, 'slip of the hand'], ['0@', 2, 'cannot be read'], [str_repeat('1,', 100).'1', 2, 'cannot be read'],
]);

it('carries sixteen channels through a map', function () {
    $in = array_map(fn (int $seed): array => Signal::steps(400, $seed), range(1, 16));
    $made = shaped(waveFile($in), 'wav', Spec::shaping('16,15/1'));
    expect(Signal::decodeFile((string) $made[0]->path) === [$in[15], $in[14]])->toBeTrue()
        ->and(Signal::decodeFile((string) $made[1]->path) === [$in[0]])->toBeTrue()
        ->and(shapedPlans(waveFile($in), 'wav', Spec::shaping('split')))->toHaveCount(16);
});

it('writes a map so that it reads itself again', function (string $text, string $again) {
    expect(ChannelMap::parse($text, Layout::stereo())->text())->toBe($again)
        ->and(ChannelMap::parse($again, Layout::stereo())->text())->toBe($again);
})->with([['split', '1/2'], ['mono', '1@-6.02+2@-6.02'], [' 2 , 1 ', '2,1'], ['1,-2', '1,-2'], ['0/1@3.5', '0/1@3.5'],
    ['left-both', '1,1']]);

it('cuts pieces like slices of a list, whatever pieces they are', function () {
    $sound = Signal::steps(20_000, 7);
    $path = waveFile([$sound], 8000);
    mt_srand(11);
    for ($round = 0; $round < 25; $round++) {
        $pieces = [];
        $wanted = [];
        for ($count = mt_rand(1, 5); $count > 0; $count--) {
            $from = mt_rand(0, 19_990);
            $until = mt_rand($from + 1, 20_000 + (mt_rand(0, 5) === 0 ? 5000 : 0));
            $pieces[] = "$from#-$until#";
            $wanted[] = array_slice($sound, $from, $until - $from);
        }
        $together = Spec::shaping(pieces: implode(',', $pieces));
        $apart = Spec::shaping(pieces: implode(',', $pieces), apart: true);
        expect(Signal::decodeFile((string) shaped($path, 'flac', $together)[0]->path)[0] === array_merge(...$wanted))
            ->toBeTrue(implode(' ', $pieces))
            ->and(array_map(fn (Result $one): bool => true, shaped($path, 'wav', $apart)))->toHaveCount(count($wanted));
        foreach (shaped($path, 'wav', $apart) as $index => $delivery) {
            expect(Signal::decodeFile((string) $delivery->path)[0] === $wanted[$index])->toBeTrue();
        }
    }
});

it('cuts across edits, late starts and rates', function () {
    $sound = Signal::sweep(96_000, 0.4, 0.000003);
    $movie = Scratch::write('late.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([$sound], lateTicks: 4800)]));
    $whole = Signal::decodeFile((string) shaped($movie, 'flac', Spec::shaping())[0]->path)[0];
    $piece = Signal::decodeFile((string) shaped($movie, 'flac', Spec::shaping(pieces: '0.05-1.5'))[0]->path)[0];
    expect(count($piece))->toBe(69_600)->and(Signal::difference(array_slice($whole, 2400, 69_600), $piece))->toBeLessThan(-70.0)
        ->and(shapedPlans($movie, 'wav', Spec::shaping(pieces: '25f-50f'))[0]->sounds[0]->samples)->toBe(48_000);
});

it('numbers the pieces that become files of their own', function () {
    $path = waveFile([Signal::steps(24_000, 1)], 8000, name: 'talk.wav');
    expect(array_map(fn (Plan $plan): string => $plan->name(),
        shapedPlans($path, 'mp3', Spec::shaping(pieces: '0-1,1-2,2-end', apart: true))))
        ->toBe(['talk 01.mp3', 'talk 02.mp3', 'talk 03.mp3']);
});

it('understands times as they are typed', function (string $text, int $samples) {
    expect(TimePosition::parse($text, 48000, 4_800_000, 25.0))->toBe($samples);
})->with([['0', 0], ['1.5', 72_000], ['1:02.5', 3_000_000], ['1:00:00', 172_800_000], ['0.000021', 1], ['48000#', 48_000], ['25f', 48_000],
    ['end', 4_800_000], ['-1', 4_752_000], ['62.5s', 3_000_000]]);

it('says in one sentence what of the pieces does not fit', function (string $pieces, string $says) {
    $path = waveFile([Signal::steps(8000, 1)], 8000);
    expect(fn () => shapedPlans($path, 'wav', Spec::shaping(pieces: $pieces)))->toThrow(Failure::class, $says);
})->with([
    ['2-3', 'but the sound ends at 0:01.000'], ['0.5-0.2', 'exchange the two'], ['0.5-0.5', 'nothing in it'], ['later', 'cannot be read'],
    ['x-y', 'The time “x” cannot be read'], ['10f-20f', 'no picture'], [str_repeat('0-1,', 600), 'cannot be read'],
]);

it('cuts one sample, and pieces shorter than a frame', function () {
    $path = waveFile([[0.5], [0.25]]);
    expect(shapedPlans($path, 'wav', Spec::shaping('split', pieces: '0#-1#'))[0]->sounds[0]->samples)->toBe(1);
    $mp3 = Scratch::write('s.mp3', Signal::mp3([Signal::sweep(48_000)], RateControl::exactly(128)));
    $tiny = shaped($mp3, 'wav', Spec::shaping(pieces: '24000#-24100#'))[0];
    expect(Signal::difference(array_slice(Signal::decodeFile((string) shaped($mp3, 'wav', Spec::shaping())[0]->path)[0], 24_000, 100),
        Signal::decodeFile((string) $tiny->path)[0]))->toBeLessThan(-60.0);
});

it('cuts what is kept without encoding it: exact where the container can say so, else on frame borders that are told',
    function (string $format, ?string $to, bool $exact) {
        $sound = [Signal::sweep(144_000, 0.4, 0.000002), Signal::sweep(144_000, 0.3, 0.000003)];
        $source = (string) (new Maker)
            ->make(Planning::plan(Reader::read(waveFile($sound)),
                Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'source')->path;
        $before = Signal::decodeFile($source);
        $shaping = Spec::shaping(pieces: '1-2.25');
        $plan = shapedPlans($source, $to ?? $format, $shaping)[0];
        $made = shaped($source, $to ?? $format, $shaping)[0];
        $after = Signal::decodeFile((string) $made->path);
        $skip = (int) Reader::read($source)->sound()[0]->timeline->skipped();
        expect($plan->isKept())->toBeTrue()->and(strlen((string) file_get_contents((string) $made->path)))
            ->toBeLessThan(filesize($source) * 0.62);
        $cut = $plan->sounds[0]->shape->kept;
        // Its packets are among the source's, one after another.
        expect($exact ? [$cut->early, $cut->late, $plan->sounds[0]->samples] : [true, true, $plan->sounds[0]->samples])
            ->toBe($exact ? [0, 0, 60_000]
            : [$cut->early >= 0 && $cut->early < 2048, $cut->late >= 0 && $cut->late < 2048, $cut->until - $cut->from])
            ->and(implode(' ', Planning::steps($plan)))->toContain($exact ? 'exact to the sample' : 'on frame borders');
        $from = $cut->from + $cut->skip - $skip;
        foreach ([0, 1] as $channel) {
            expect(Signal::difference(array_slice($before[$channel], $from, $plan->sounds[0]->samples), $after[$channel], $exact ? 0 : 4000,
                50_000))->toBeLessThan(-60.0);
        }
    })->with([['mp3', null, true], ['aac', null, true], ['adts', null, false], ['opus', null, true], ['mp2', null, false], ['mp3', 'mka',
        true],
        ['aac', 'adts', false]]);

it('encodes a piece anew for exactness only where that makes it exact', function (string $format, bool $kept, int $samples) {
    $source = (string) shaped(waveFile([Signal::sweep(144_000), Signal::sweep(144_000)]), $format, Spec::shaping())[0]->path;
    $plan = shapedPlans($source, $format, Spec::shaping(pieces: '1-2.25', exact: true))[0];
    expect($plan->isKept())->toBe($kept)->and($plan->sounds[0]->samples)->toBe($samples)->and(implode(' ', Planning::steps($plan)))
        ->toContain(match (true) {
            $kept => $samples === 60_000 ? 'exact to the sample' : 'on frame borders',
            default => $format === 'flac' ? 'write 16-bit FLAC' : 'encode',
        });
})->with(['FLAC cannot leave out what is in a frame' => ['flac', false, 60_000], 'Vorbis begins on a border' => ['vorbis', false, 60_000],
    'AAC in M4A is exact as it is' => ['aac', true, 60_000], 'bare AAC never is' => ['adts', true, 61_440],
    'nor is MP2' => ['mp2', true, 61_056]]);

it('cuts Vorbis on a border at its begin, to the sample at its end', function () {
    $sound = [Signal::sweep(144_000, 0.4, 0.000002), Signal::sweep(144_000, 0.3, 0.000003)];
    $source = (string) (new Maker)
        ->make(Planning::plan(Reader::read(waveFile($sound)),
            Spec::sound(Outputs::named('vorbis'), RateControl::none(), Scratch::folder())), 'source')->path;
    $before = Signal::decodeFile($source);
    $made = shaped($source, 'vorbis', Spec::shaping(pieces: '1-2.25'))[0];
    $cut = $made->plan->sounds[0]->shape->kept;
    $after = Signal::decodeFile((string) $made->path);
    expect($made->plan->isKept())->toBeTrue()->and($cut->late)->toBe(0)->and($cut->early)->toBeBetween(0, 2048)->and(count($after[0]))
        ->toBe(60_000 + $cut->early)
        ->and(Signal::difference(array_slice($before[0], 48_000 - $cut->early, 60_000 + $cut->early), $after[0]))->toBeLessThan(-60.0);
});

it('cuts FLAC without encoding it: frames are counted from the first that is kept, and every bit stays', function (string $to) {
    $sound = [Signal::steps(700_000, 1), Signal::steps(700_000, 2)];
    $source = (string) (new Maker)
        ->make(Planning::plan(Reader::read(waveFile($sound)),
            Spec::sound(Outputs::named('flac'), RateControl::none(), Scratch::folder())), 'source')->path;
    // Across the frame at which the coded number grows by a byte.
    $made = shaped($source, $to, Spec::shaping(pieces: '100000#-650000#'))[0];
    $cut = $made->plan->sounds[0]->shape->kept;
    $after = Signal::decodeFile((string) $made->path);
    expect($made->plan->isKept())->toBeTrue();
    expect($to === 'mka' ? $made->plan->sounds[0]->samples : [$cut->from, $cut->until, $cut->early, $cut->late])
        ->toBe($to === 'mka' ? 550_000 : [98_304, 651_264, 1_696, 1_264]);
    [$from, $until] = $to === 'mka' ? [100_000, 650_000] : [$cut->from, $cut->until];
    expect($after[0] === array_slice($sound[0], $from, $until - $from))->toBeTrue()
        ->and($after[1] === array_slice($sound[1], $from, $until - $from))->toBeTrue();
    $opened = Opener::open((string) $made->path);
    $number = 0;
    foreach ($opened->media->packets($opened->sound()[0], 0, PHP_INT_MAX >> 2) as $packet) {
        // Both sums of every frame, counted from its bytes.
        $header = FrameHeader::parse(substr($packet->data, 0, 16));
        expect($header?->number)->toBe($number++)->and(FrameCrc::frame($packet->data))->toBe(0);
    }
    expect($number)->toBe(intdiv($cut->until - $cut->from, 4096));
    if ($to === 'flac') {
        expect(StreamInfo::parse($opened->sound()[0]->sound->config)?->samples)->toBe($cut->until - $cut->from);
        // What is cut can be cut again; exactness is had by encoding.
        $again = shaped((string) $made->path, 'flac', Spec::shaping(pieces: '5000#-9000#', exact: true))[0];
        expect($again->plan->isKept())->toBeFalse()
            ->and(Signal::decodeFile((string) $again->path)[0] === array_slice($after[0], 5000, 4000))->toBeTrue();
        $borders = shaped((string) $made->path, 'flac', Spec::shaping(pieces: '4096#-12288#', exact: true))[0];
        expect($borders->plan->isKept())->toBeTrue()
            ->and(Signal::decodeFile((string) $borders->path)[0] === array_slice($after[0], 4096, 8192))->toBeTrue();
    }
})->with(['flac', 'mka']);

it('leaves out a tag that stands after the sound of FLAC', function () {
    $sound = [Signal::steps(20_000, 1)];
    $source = (string) shaped(waveFile($sound), 'flac', Spec::shaping())[0]->path;
    $tagged = Scratch::write('tagged.flac', file_get_contents($source).'TAG'.str_repeat("\xFF\xF8 ", 41).'ab');
    expect(Signal::packetsOf($tagged))->toBe(Signal::packetsOf($source))->and(Signal::decodeFile($tagged) === $sound)->toBeTrue();
    $cut = shaped($tagged, 'flac', Spec::shaping(pieces: '10000#-end'))[0];
    expect($cut->plan->isKept())->toBeTrue()->and(Signal::decodeFile((string) $cut->path)[0] === array_slice($sound[0], 8192))->toBeTrue();
});

it('codes the numbers of FLAC frames as the standard does, up to 36 bits', function (int $number, string $bytes) {
    expect(bin2hex(FrameHeader::coded($number)))->toBe($bytes);
    $header = "\xFF\xF9\xC9\x18".hex2bin($bytes);
    expect(FrameHeader::parse(str_pad($header.chr(FrameCrc::header($header)), 16, "\0"))?->number)->toBe($number);
})->with([[0, '00'], [127, '7f'], [128, 'c280'], [2047, 'dfbf'], [2048, 'e0a080'], [0xFFFF, 'efbfbf'], [0x10000, 'f0908080'],
    [0x200000, 'f888808080'], [0x4000000, 'fc8480808080'], [0x7FFFFFFF, 'fdbfbfbfbfbf'], [0x80000000, 'fe828080808080'],
    [0xFFFFFFFFF, 'febfbfbfbfbfbf']]);

it('keeps the sums of a FLAC frame right when its number changes, and those of a damaged one wrong', function () {
    $encoder = Codecs::encoder(new AudioFormat(Codec::Flac, 48_000, Layout::mono(), null, '', 0, '', 16), RateControl::none());
    $frames = [...$encoder->encode(Block::fromChannels([Signal::steps(9000, 1)])), ...$encoder->finish()];
    $header = FrameHeader::parse(substr($frames[1]->data, 0, 16));
    foreach ([0, 127, 128, 70_000, 0xFFFFFFFFF] as $number) {
        $changed = $header->counted($frames[1]->data, $number);
        expect(FrameCrc::frame($changed))->toBe(0)->and(FrameHeader::parse(substr($changed, 0, 16))?->number)->toBe($number)
            ->and(FrameHeader::parse(substr($changed, 0, 16))?->counted($changed, 1))->toBe($frames[1]->data);
    }
    $damaged = $frames[1]->data;
    $damaged[40] = chr(ord($damaged[40]) ^ 4);
    expect(FrameCrc::frame($header->counted($damaged, 70_000)))->not->toBe(0);
});

it('cuts ALAC to the sample and AC-3 on frame borders, both without encoding', function () {
    $in = [Signal::steps(60_000, 1), Signal::steps(60_000, 2)];
    $alac = (string) shaped(waveFile($in), 'alac', Spec::shaping())[0]->path;
    $made = shaped($alac, 'alac', Spec::shaping(pieces: '10000#-30000#'))[0];
    expect($made->plan->isKept())->toBeTrue()
        ->and(Signal::decodeFile((string) $made->path)[1] === array_slice($in[1], 10_000, 20_000))->toBeTrue();

    $ac3 = Scratch::write('s.ac3', str_repeat(ForeignEncoders::ac3([10, 30]), 100));
    $made = shaped($ac3, 'ac3', Spec::shaping(pieces: '10000#-30000#'))[0];
    $cut = $made->plan->sounds[0]->shape->kept;
    expect($made->plan->isKept())->toBeTrue()->and([$cut->from, $cut->until, $cut->early, $cut->late])->toBe([9216, 30_720, 784, 720])
        ->and(file_get_contents((string) $made->path))->toBe(str_repeat(ForeignEncoders::ac3([10, 30]), 14));
});

it('cuts uncompressed sound bit for bit', function () {
    $in = [Signal::steps(9000, 1), Signal::steps(9000, 2)];
    $plan = shapedPlans(waveFile($in), 'aiff', Spec::shaping(pieces: '1000#-2000#,5000#-5001#'))[0];
    $made = shaped(waveFile($in), 'wav', Spec::shaping(pieces: '1000#-2000#,5000#-5001#'))[0];
    expect($made->plan->isKept())->toBeTrue()->and($plan->sounds[0]->samples)->toBe(1001)
        ->and(Signal::decodeFile((string) $made->path)[1] === [...array_slice($in[1], 1000, 1000), $in[1][5000]])->toBeTrue();
});

it('lets sound rise and fall along the curve', function () {
    $path = Scratch::write('flat.wav', Signal::wave([array_fill(0, 8000, 0.5)], SampleFormat::float(32), 8000));
    $out = Signal::decodeFile((string) shaped($path, 'float', Spec::shaping(fadeIn: '0.25', fadeOut: '2000#'))[0]->path)[0];
    // A raised cosine, each sample at the middle of its time: the same at the end backwards.
    $level = fn (int $sample, int $length): float => (1 - cos(M_PI * ($sample + 0.5) / $length)) / 2;
    foreach (range(0, 1999) as $index) {
        expect(abs($out[$index] - 0.5 * $level($index, 2000)))->toBeLessThan(1e-7)
            ->and(abs($out[7999 - $index] - $out[$index]))->toBeLessThan(1e-7);
    }
    expect(array_unique(array_slice($out, 2000, 4000)))->toBe([0.5]);
    // Where both meet, both count.
    $met = Signal::decodeFile((string) shaped($path, 'float', Spec::shaping(fadeIn: '8000#', fadeOut: '4000#'))[0]->path)[0];
    foreach ([0, 3999, 4000, 6000, 7999] as $index) {
        expect($met[$index])
            ->toEqualWithDelta(0.5 * $level($index, 8000) * ($index < 4000 ? 1.0 : $level(7999 - $index, 4000)), 1e-6);
    }
    expect($out[0])->toBeLessThan(0.001)->and($out[4000])->toBe(0.5)->and($out[7999])->toBeLessThan(0.001);
});

it('reaches the level that is wished', function (string $level, string $figure, float $wanted, bool $held) {
    $left = array_map(fn (float $sample): float => 0.1 * $sample, Signal::sweep(240_000, 1.0, 0.0000005, 0.05));
    $right = array_map(fn (float $sample, int $index): float => $sample * ($index % 48_000 < 100 ? 3.0 : 1.0), $left, array_keys($left));
    $made = shaped(waveFile([$left, $right], bits: 24), 'wav', Spec::shaping(level: $level))[0];
    $figures = $made->receipt->level;
    expect($figures->after->toArray()[$figure])->toEqualWithDelta($wanted, 0.1)
        ->and($figures->isHeld)->toBe($held)
        ->and($figures->after->loudness - $figures->before->loudness)->toEqualWithDelta($figures->gain, 0.05);
})->with([['peak:-1', 'peak_db', -1.0, false], ['peak:50%', 'peak_db', -6.02, false], ['rms:-30', 'rms_db', -30.0, false],
    ['lufs:-23', 'lufs', -23.0, false], ['lufs:-6', 'true_peak_db', -1.0, true], ['lufs:-6:-3', 'true_peak_db', -3.0, true],
    ['gain:-6', 'peak_db', 20 * log10(0.3) - 6.0, false]]);

it('leaves silence silent, whatever level is wished', function () {
    $made = shaped(waveFile([array_fill(0, 20_000, 0.0)]), 'wav', Spec::shaping(level: 'lufs:-16'))[0];
    expect($made->receipt->level->gain)->toBe(0.0)->and($made->receipt->level->before->loudness)->toBeNull();
});

it('says in one sentence what of a level cannot be had', function (string $level, string $says) {
    expect(fn () => LevelTarget::parse($level))->toThrow(Failure::class, $says);
})->with([['loud', 'cannot be read'], ['peak:3', 'between -60 and 0 dBFS'], ['peak:120%', 'cannot be read'],
    ['lufs:-2', 'between -60 and -5 LUFS'], ['lufs:-16:+2', 'cannot be read'], ['lufs:-16:-50', 'ceiling'],
    ['gain:100', 'between -60 and 60 dB']]);

it('does all of it at once, in one order', function () {
    $in = [Signal::sweep(96_000, 0.1), Signal::sweep(96_000, 0.2, 0.00002)];
    $made = shaped(waveFile($in, bits: 24), 'flac',
        Spec::shaping('split', ['lav', 'boom'], '0.5-1,1.5-2', false, '0.01', '0.01', 'peak:-3'));
    foreach ($made as $index => $delivery) {
        $out = Signal::decodeFile((string) $delivery->path)[0];
        $meant = [...array_slice($in[$index], 24_000, 24_000), ...array_slice($in[$index], 72_000, 24_000)];
        $gain = 10 ** ($delivery->receipt->level->gain / 20);
        expect(count($out))->toBe(48_000)->and($delivery->receipt->level->after->peak)->toEqualWithDelta(-3.0, 0.05)
            ->and(Signal::difference(array_map(fn (float $sample): float => $gain * $sample, $meant), $out, 1000, 47_000))
            ->toBeLessThan(-55.0);
    }
});

it('puts two microphones beside the kept picture as one mono track each', function () {
    $in = [Signal::steps(48_000, 1), Signal::steps(48_000, 2)];
    [$encoder, $packets] = Signal::encode(Octavox\Core\Media\AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::stereo()),
        RateControl::none(), $in);
    $path = Scratch::write('video.mov', Video::of('mov', $encoder->audio(), $packets, 0, 48_000));
    $plan = Planning::plan(Reader::read($path), Spec::video(VideoOutputs::named('mov'), Outputs::named('wav'), RateControl::none(),
        Scratch::folder(), shaping: Spec::shaping('split', ['lav', 'boom'])));
    $made = (new Maker)->make(Planning::stored($plan), 'video');
    $reading = Reader::read((string) $made->path);
    $tracks = $reading->sound();
    expect(array_map(fn ($track): array => [$track->sound->codec, $track->sound->layout->name(), $track->timeline->samples()], $tracks))
        ->toBe([[Codec::Pcm, 'mono', 48_000], [Codec::Pcm, 'mono', 48_000]])
        ->and($reading->picture())->not->toBeNull();
    foreach ($tracks as $index => $track) {
        $alone = (new Maker)
            ->make(Planning::plan($reading,
                Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), track: $track->number)), 'alone'.$index);
        expect(Signal::decodeFile((string) $alone->path)[0] === $in[$index])->toBeTrue();
    }
    expect(fn () => Planning::plan($reading, Spec::video(VideoOutputs::named('mov'), null, RateControl::none(), Scratch::folder(),
        shaping: Spec::shaping(pieces: '0-1'))))->toThrow(Failure::class, 'cannot be cut');
});

it('makes 5.1 of six mono tracks, each channel its own track to the sample', function () {
    $in = array_map(fn (int $seed): array => Signal::steps($seed === 4 ? 20_000 : 24_000, $seed), range(1, 6));
    $movie = Scratch::write('six.mov',
        Signal::movie([Signal::pictureTrack(30),
            ...array_map(fn (array $samples): Octavox\Core\Testing\WriterTrack => Signal::pcmTrack([$samples],
                SampleFormat::signed(16, true)), $in)], brand: 'qt  '));
    $plan = Planning::plans(Reader::read($movie),
        (Spec::sound(Outputs::named('flac'), RateControl::none(), Scratch::folder(), shaping: Spec::shaping('5.1')))
            ->withSounds([new SoundSpec('2+3+4+5+6+7', layout: '5.1')]))[0];
    $made = (new Maker)->make(Planning::stored($plan), 'joined');
    $in[3] = [...$in[3], ...array_fill(0, 4000, 0.0)];
    expect($plan->sounds[0]->samples)->toBe(24_000)->and($plan->sounds[0]->audio->layout->name())->toBe('5.1')
        ->and(implode(Planning::steps($plan)))->toContain('6 tracks together')
        ->and(Signal::decodeFile((string) $made->path) === $in)->toBeTrue();
    $two = Planning::plans(Reader::read($movie),
        (Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), shaping: Spec::shaping(pieces: '0.25-end')))
            ->withSounds([new SoundSpec('3+2', pieces: '0.25-end')]))[0];
    expect(Signal::decodeFile((string) (new Maker)->make($two, 'two')->path) === [array_slice($in[1], 12_000),
        array_slice($in[0], 12_000)])->toBeTrue();
});
