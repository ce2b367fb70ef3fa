<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Make\Encoded;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\PacketSum;
use Octavox\Core\Make\SoundVerifier;
use Octavox\Core\Make\VerificationFailed;
use Octavox\Core\Make\Written;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Level;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

afterAll(fn () => Scratch::clear());

/** @return list<float> */
function tone(float $level = 0.3, int $frames = 96_000): array
{
    return array_map(fn (int $index): float => $level * sin($index * 0.05), range(0, $frames - 1));
}

/** @param  list<list<float>>  $channels */
function planOf(array $channels, string $format, int $rate = 48_000, ?RateControl $rateControl = null): Plan
{
    $source = Scratch::write('in.wav', Signal::wave($channels, SampleFormat::signed(16), $rate));

    return Planning::plan(Reader::read($source),
        Spec::sound(Outputs::named($format), $rateControl ?? RateControl::none(), Scratch::folder()));
}

/** What a sound must be found to be: the packets of this file, and what was measured of another sound when it was encoded. */
function verifiedAs(Plan $plan, string $file, Encoded $encoded): ?Level
{
    $opened = Opener::open($file);
    $track = $opened->sound()[0];
    $written = new Written(PacketSum::ofAll($opened->media, $track, [], fn () => null), encoded: $encoded);
    $verifier = new SoundVerifier('/result', $plan->sounds[0], new NoProgress);
    $verifier->requireAlike($track, $written, 'the sound');

    return $verifier->compare($opened, $track, $written, null);
}

function madeOf(array $channels, string $format, int $rate = 48_000): string
{
    return (new Maker)->make(planOf($channels, $format, $rate), 'other')->path;
}

it('refuses a sound that is shorter, longer, of another rate, layout or codec than was planned', function (string $other, string $says) {
    $plan = planOf([tone(), tone()], 'mp3');
    $file = match ($other) {
        'shorter' => madeOf([tone(frames: 90_000), tone(frames: 90_000)], 'mp3'),
        'longer' => madeOf([tone(frames: 99_000), tone(frames: 99_000)], 'mp3'),
        'rate' => madeOf([tone(frames: 88_200), tone(frames: 88_200)], 'mp3', 44_100),
        'layout' => madeOf([tone()], 'mp3'),
        default => madeOf([tone(), tone()], 'aac'),
    };
    expect(fn () => verifiedAs($plan, $file, new Encoded(new Level(0.3, 0.212))))->toThrow(VerificationFailed::class, $says);
})->with([
    ['shorter', '90,000 samples instead of 96,000'], ['longer', '99,000 samples instead of 96,000'],
    ['rate', 'format of the sound differs'],
    ['layout', 'format of the sound differs'], ['codec', 'format of the sound differs'],
]);

it('takes a lossy sound for right within 6 dB below and 3 dB above what went in, and no further',
    function (float $decibels, bool $isRight) {
        $level = 0.2;
        $plan = planOf([tone($level), tone($level)], 'mp3');
        $went = new Encoded(new Level($level, $level / sqrt(2)));
        $file = madeOf([tone($level * 10 ** ($decibels / 20)), tone($level * 10 ** ($decibels / 20))], 'mp3');
        $isRight
            ? expect(verifiedAs($plan, $file, $went)->rmsDecibels())->toEqualWithDelta(20 * log10($level / sqrt(2)) + $decibels, 0.3)
            : expect(fn () => verifiedAs($plan, $file, $went))->toThrow(VerificationFailed::class, 'its level is');
    })->with([[0.0, true], [2.6, true], [3.4, false], [9.0, false], [-5.6, true], [-6.4, false], [-40.0, false]]);

it('refuses lossless sound of which one sample is another', function (string $format) {
    $plan = planOf([tone()], $format);
    $right = hash_init('xxh128');
    foreach ((new Octavox\Core\Make\Pipeline\Filters(Octavox\Core\Make\Pipeline\SoundInput::of(Opener::open($plan->source->path),
        $plan->sounds[0])))->blocks() as $block) {
        hash_update($right, $block->bytes());
    }
    $went = new Encoded(new Level(0.3, 0.212), samples: hash_final($right));
    $changed = tone();
    $changed[50_000] += 4 / 32_768;
    expect(verifiedAs($plan, madeOf([tone()], $format), $went)->peak)->toBe(0.3)
        ->and(fn () => verifiedAs($plan, madeOf([$changed], $format), $went))
        ->toThrow(VerificationFailed::class, 'does not decode to the samples that went in');
})->with(['flac', 'alac', 'wavpack']);

it('refuses packets that are not those that were written', function () {
    $plan = planOf([tone()], 'mp3');
    $file = (new Maker)->make($plan, 'right')->path;
    $opened = Opener::open($file);
    $written = new Written(strrev(PacketSum::ofAll($opened->media, $opened->sound()[0], [], fn () => null)),
        encoded: new Encoded(new Level(0.3, 0.212)));
    expect(fn () => (new SoundVerifier('/result', $plan->sounds[0], new NoProgress))->compare($opened, $opened->sound()[0], $written, null))
        ->toThrow(VerificationFailed::class, 'not those that were written');
});

/** Puts another file in the place of a result that is finished and not verified yet. */
function swapped(Plan $plan, string $other): Closure
{
    $swapper = new class($plan->target->folder, $other) implements Progress
    {
        private bool $done = false;

        public function __construct(private readonly string $folder, private readonly string $other) {}

        public function reached(Phase $phase, int $done, int $of): void
        {
            $temporary = glob($this->folder.'/.octavox-*.part')[0] ?? null;
            if ($phase === Phase::Verifying && ! $this->done && $temporary !== null) {
                $this->done = true;
                file_put_contents($temporary, file_get_contents($this->other));
            }
        }
    };

    return fn () => (new Maker($swapper))->make($plan, 'swapped');
}

/** @param  list<list<float>>  $sounds */
function videoOf(array $sounds, int $pictures = 50, int $late = 0): string
{
    return Scratch::write('tour.mp4', Signal::movie([
        Signal::pictureTrack($pictures), ...array_map(fn (array $sound) => Signal::aacTrack([$sound], lateTicks: $late), $sounds),
    ]));
}

it('refuses a video whose sound begins elsewhere, whose sounds are others, or that lacks a picture',
    function (string $other, string $says) {
        $spec = fn (): Octavox\Core\Order\OutputSpec => Spec::video(VideoOutputs::named('mov'), null, RateControl::none(),
            Scratch::folder());
        $plan = Planning::plan(Reader::read(videoOf([tone(), tone(0.1)])), $spec());
        $source = match ($other) {
            'late' => videoOf([tone(), tone(0.1)], late: 4800),
            'missing' => videoOf([tone()]),
            'more' => videoOf([tone(), tone(0.1), tone(0.05)]),
            'others' => videoOf([tone(), tone(0.2)]),
            'turned' => videoOf([tone(0.1), tone()]),
            'picture' => videoOf([tone(), tone(0.1)], 49),
            default => videoOf([tone(), tone(0.1)]),
        };
        $wrong = (new Maker)->make(Planning::plan(Reader::read($source), $spec()), 'wrong')->path;
        $other === 'same'
            ? expect(swapped($plan, $wrong)()->receipt->sounds)->toHaveCount(2)
            : expect(swapped($plan, $wrong))->toThrow(VerificationFailed::class, $says)
                ->and(array_diff((array) scandir($plan->target->folder), ['.', '..']))->toBe([]);
    })->with([
        ['same', ''], ['late', 'begins at another time'], ['missing', '1 sound tracks instead of 2'],
        ['more', '3 sound tracks instead of 2'],
        ['others', 'not those that were written'], ['turned', 'not those that were written'],
        ['picture', 'its pictures are not those of the source'],
    ]);

it('refuses a file of sound that was exchanged after it was made', function (string $format) {
    $plan = planOf([tone(), tone()], $format);
    expect(swapped($plan, madeOf([tone(0.2), tone(0.2)], $format)))->toThrow(VerificationFailed::class)
        ->and(swapped($plan, Scratch::write('nothing', 'no sound at all')))->toThrow(VerificationFailed::class)
        ->and(swapped($plan, Scratch::write('empty', '')))->toThrow(VerificationFailed::class)
        ->and(array_diff((array) scandir($plan->target->folder), ['.', '..']))->toBe([]);
})->with(['wav', 'flac', 'mp3', 'opus']);

it('uses a second processor for the sounds of a video and finds there what it would find itself', function () {
    $long = array_merge(...array_fill(0, 50, Signal::steps(48_000, 3)));
    $path = Scratch::write('long.mp4', Signal::movie([Signal::pictureTrack(1250), Signal::pcmTrack([$long], SampleFormat::signed(16))]));
    $spec = Spec::video(VideoOutputs::named('mkv'), Outputs::named('flac'), RateControl::none(), Scratch::folder());
    $phases = new class implements Progress
    {
        /** @var array<string, int> */
        public array $verifying = [];

        public function reached(Phase $phase, int $done, int $of): void
        {
            if ($phase === Phase::Verifying && $done > 0 && $done < $of) {
                $this->verifying[$done] = $done;
            }
        }
    };
    $made = (new Maker($phases))->make(Planning::plan(Reader::read($path), $spec), 'both');
    expect($made->receipt->identical)->toBeTrue()->and(Signal::decodeFile($made->path)[0])->toHaveCount(count($long));
    // Where it was decoded meanwhile nothing is left to decode: the packets are summed only.
    expect(count($phases->verifying))->toBeLessThan(Octavox\Core\Parallel\Processors::count() < 2 ? PHP_INT_MAX : 40);
});

it('takes for right what few bits leave of noise, and a click that is shorter than a frame',
    function (string $format, int $kbps, int $frames) {
        $wave = Scratch::write('noise.wav', Signal::wave([Signal::steps($frames, 1), Signal::steps($frames, 2)], SampleFormat::signed(16)));
        $spec = Spec::sound(Outputs::named($format), RateControl::near($kbps), Scratch::folder());
        $made = (new Maker)->make(Planning::plan(Reader::read($wave), $spec), 'few');
        expect($made->receipt->samples)->toBe($made->plan->onlySound()->samples);
    })->with([['mp2', 96], ['mp2', 64], ['mp3', 64], ['mp3', 48], ['opus', 32], ['aac', 64]])->with([1, 700, 48_000]);

it('finds that channels read as other ones, in every container', function (string $format) {
    $channels = array_map(fn (int $index): array => array_map(fn (int $at): float => 0.2 * sin($at * (0.01 + 0.004 * $index)), range(0,
        9599)), range(0, 5));
    $source = Scratch::write('six.wav', Signal::wave($channels, SampleFormat::signed(16), 48_000, layout: Layout::fiveOne()));
    $plan = Planning::plan(Reader::read($source), Spec::sound(Outputs::named($format), RateControl::near(450), Scratch::folder()));
    $path = (new Maker)->make($plan, 'six')->path;
    $opened = Opener::open($path);
    $track = $opened->sound()[0];
    $written = new Written(PacketSum::ofAll($opened->media, $track, [], fn () => null));
    $as = fn (Layout $layout): Track => $track->withSound($track->sound->withLayout($layout));
    $verifier = new SoundVerifier($path, $plan->sounds[0], new NoProgress);
    $verifier->requireAlike($track, $written, 'the sound');
    $verifier->requireAlike($as($plan->sounds[0]->audio->layout), $written, 'the sound');
    // The mask 0x707: as many channels, on other speakers; the same ones in another order; and none said.
    $own = $plan->sounds[0]->audio->layout->channels;
    foreach ([Layout::fromMask(0x707, 6), Layout::of(...array_reverse($own)), Layout::undeclared(6)] as $other) {
        expect(fn () => $verifier->requireAlike($as($other), $written, 'the sound'))->toThrow(VerificationFailed::class,
            'reads as the channels');
    }
})->with(['wav', 'aiff', 'caf', 'flac', 'wavpack', 'alac', 'aac', 'opus', 'vorbis']);

it('throws a result away whose file says other channels than were written', function () {
    $channels = array_map(fn (int $index): array => array_fill(0, 4800, 0.1 * $index), range(0, 5));
    $source = Scratch::write('six.wav', Signal::wave($channels, SampleFormat::signed(16), 48_000, layout: Layout::fiveOne()));
    $plan = Planning::plan(Reader::read($source), Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), bits: 24));
    $spoil = new class($plan->target->folder) implements Progress
    {
        public function __construct(private string $folder) {}

        public function reached(Phase $phase, int $done, int $of): void
        {
            foreach ($phase === Phase::Verifying ? [] : (glob($this->folder.'/.*.part') ?: []) as $part) {
                $bytes = (string) file_get_contents($part);
                if (strlen($bytes) > 44 && substr($bytes, 40, 4) === pack('V', Layout::fiveOne()->mask())) {
                    file_put_contents($part, substr_replace($bytes, pack('V', 0x707), 40, 4));
                }
            }
        }
    };
    expect(fn () => (new Maker($spoil))->make($plan, 'spoilt'))->toThrow(VerificationFailed::class);
});
