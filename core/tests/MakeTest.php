<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\Make\ChildDied;
use Octavox\Core\Make\Comparison;
use Octavox\Core\Make\DecodeDigest;
use Octavox\Core\Make\Encoded;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\MakerProcess;
use Octavox\Core\Make\Result;
use Octavox\Core\Make\SourceChanged;
use Octavox\Core\Make\VerificationFailed;
use Octavox\Core\Make\Verifier;
use Octavox\Core\Make\VerifyingDecoder;
use Octavox\Core\Make\WorkerPool;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Make\Written;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanUnreadable;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Level;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Testing\WriterTrack;
use Octavox\Core\Tests\Support\ReplicatedAac;
use Octavox\Core\Tests\Support\SampleLibrary;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Waiting;

function format(string $name): OutputFormat
{
    return Outputs::named($name) ?? throw new LogicException($name);
}

function wish(string $format, ?string $folder = null, ?int $rate = null, ?int $bits = null, ?Layout $layout = null, ?int $track = null,
    IfExists $existing = IfExists::Number, string $name = '{stem}'): OutputSpec
{
    return Spec::sound(format($format), RateControl::near(192), $folder ?? Scratch::folder(), $rate, $bits, $layout, $track,
        new NamePattern($name), $existing);
}

function make(string $path, OutputSpec $wish): Result
{
    return (new Maker)->make(Planning::plan(Reader::read($path), $wish), bin2hex(random_bytes(4)));
}

/** @return list<string> everything in a folder, hidden files too */
function everythingIn(string $folder): array
{
    return array_values(array_diff(scandir($folder) ?: [], ['.', '..']));
}

it('makes of a video’s AAC a WAV with exactly the samples that the track presents, each in its place', function () {
    $sounds = [Signal::sweep(100_001), Signal::sweep(100_001, 0.3, 0.00002)];
    $path = Scratch::write('clip.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack($sounds)]));
    $delivery = make($path, wish('wav'));
    [$left, $right] = Signal::decodeFile($delivery->path);
    expect($delivery->plan->sounds[0]->action)->toBe(Action::Remade)->and($delivery->receipt->samples)->toBe(100_001)
        ->and(count($left))->toBe(100_001)
        ->and(Signal::difference($sounds[0], $left, 200, 60_000))->toBeLessThan(-35.0)
        ->and(Signal::difference($sounds[1], $right, 200, 60_000))->toBeLessThan(-35.0)
        ->and(filesize($delivery->path))->toBe($delivery->plan->target->predictedBytes)
        ->and($delivery->receipt->checksum)->toBe(hash_file('xxh128', $delivery->path));
});

it('decodes a long result in a second process while it is made', function (string $codec, int $kbps) {
    $audio = new AudioFormat(Codec::from($codec), 48000, Layout::stereo(), bitDepth: $codec === 'flac' ? 16 : 0);
    $second = Signal::steps(48_000, 3);
    $sound = array_merge(...array_fill(0, 46, $second));
    [$encoder, $packets] = Signal::encode($audio, RateControl::exactly($kbps), [$sound, $sound]);
    $listener = VerifyingDecoder::start($encoder->audio(), $encoder->delay(), count($sound));
    expect($listener)->not->toBeNull();
    foreach ($packets as $packet) {
        $listener->take($packet);
    }
    $heard = $listener->finish($encoder->audio(), fn () => null);
    expect($heard->frames)->toBe(count($sound))
        ->and($heard->packets)->toBe(hash('xxh128', implode('', array_map(fn ($packet) => $packet->data, $packets))));
    // Of a lossless codec all samples are compared instead.
    expect($heard->level->rms)->toEqualWithDelta($codec === 'flac' ? 0.0 : 0.55, 0.06);
    if ($codec === 'flac') {
        $both = pack('g*', ...array_merge(...array_map(null, $second, $second)));
        expect($heard->samples)->toBe(hash('xxh128', str_repeat($both, 46)));
    }
})->with([['flac', 0], ['mp3', 192], ['opus', 128]]);

it('takes a long result’s second look after it is written where the listening process was killed', function () {
    $sound = array_merge(...array_fill(0, 46, Signal::steps(48_000, 3)));
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Flac, 48000, Layout::mono(), bitDepth: 16), RateControl::none(), [$sound]);
    $listener = VerifyingDecoder::start($encoder->audio(), 0, count($sound));
    exec('pkill -KILL -P '.getmypid());
    foreach ($packets as $packet) {
        $listener->take($packet);
    }
    expect($listener->finish($encoder->audio(), fn () => null))->toBeNull();

    $path = Scratch::write('long.wav', Signal::wave([$sound], SampleFormat::signed(16)));
    $made = make($path, wish('flac'));
    expect(Comparison::of($path, (string) $made->path)->identical)->toBeTrue();
});

it('is not told that a result is right by one who heard another', function () {
    $sound = array_merge(...array_fill(0, 46, Signal::steps(48_000, 3)));
    $path = Scratch::write('long.wav', Signal::wave([$sound], SampleFormat::signed(16)));
    $plan = Planning::plan(Reader::read($path), wish('flac'));
    $made = (string) (new Maker)->make($plan, 'heard')->path;
    $audio = Reader::read($made)->sound()[0]->sound;
    $packets = Signal::packetsOf($made);
    $heard = fn (string $samples): DecodeDigest => new DecodeDigest($packets, count($sound), new Level(1.0, 0.577), $samples, $audio, 0);
    $right = hash('xxh128', pack('g*', ...$sound));
    $verify = fn (string $samples) => (new Verifier($plan, new NoProgress))
        ->verify($made, new Written($packets, hash_file('xxh128', $made),
            new Encoded(new Level(1.0, 0.577), null, $right, $heard($samples))), 0);
    expect($verify($right)->identical)->toBeTrue()->and(fn () => $verify('else'))->toThrow(VerificationFailed::class, 'does not decode');
});

it('lasts as long as the picture where that is asked: silence at the end, or cut',
    function (int $pictures, string $format, int $samples, string $step) {
        $sound = Signal::steps(48_000, 5);
        $path = Scratch::write('length.mov',
            Signal::movie([Signal::pictureTrack($pictures), Signal::pcmTrack([$sound], SampleFormat::signed(16))], brand: 'qt  '));
        $wish = Spec::sound(format($format), RateControl::none(), Scratch::folder(), length: Length::picture());
        $plan = Planning::plan(Reader::read($path), $wish);
        expect($plan->sounds[0]->samples)->toBe($samples)->and(implode(' · ', Planning::steps($plan)))->toContain($step)
            ->and(Planning::stored($plan)->sounds[0]->duration)->toBe($plan->sounds[0]->duration)->not->toBeNull();

        $made = (new Maker)->make($plan, 'length');
        $wanted = Scratch::write('wanted.wav',
            Signal::wave([array_slice([...$sound, ...array_fill(0, 48_000, 0.0)], 0, $samples)], SampleFormat::signed(16)));
        expect(SampleLibrary::read($made->path)[0])->toBe($samples)->and(Comparison::of($wanted, $made->path)->identical)->toBeTrue();
    })->with([
        'longer, WAV' => [30, 'wav', 57_600, '0.200 s of silence at the end'],
        'longer, FLAC' => [30, 'flac', 57_600, '0.200 s of silence at the end'],
        'shorter, WAV, kept' => [20, 'wav', 38_400, 'leave out 0.200 s after the picture has ended'],
        'shorter, FLAC' => [20, 'flac', 38_400, 'leave out 0.200 s after the picture has ended'],
    ]);

it('needs a picture to be as long as that', function () {
    $path = Scratch::write('no picture.wav', Signal::wave([Signal::sweep(1_000)], SampleFormat::signed(16)));
    Planning::plan(Reader::read($path), Spec::sound(format('wav'), RateControl::none(), Scratch::folder(), length: Length::picture()));
})->throws(CannotPlan::class, 'no picture');

it('starts with the picture: late sound gets silence first, sound before the picture is cut', function () {
    $sound = [Signal::steps(48_000, 5)];
    [$encoder, $packets] = Signal::encode(AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::mono()), RateControl::none(), $sound);
    $late = WriterTrack::sound($encoder->audio(), $packets, 0, 48_000, 'und', 7_000);
    $path = Scratch::write('late.mov', Signal::movie([Signal::pictureTrack(30), $late], brand: 'qt  '));
    [$result] = Signal::decodeFile(make($path, wish('wav'))->path);
    expect(array_slice($result, 0, 7_000))->toBe(array_fill(0, 7_000, 0.0))->and(array_slice($result, 7_000))->toBe($sound[0]);

    // The picture begins 0.25 s after the sound: an empty edit of 12,000 movie ticks before it.
    $movie = Signal::movie([Signal::pictureTrack(30), Signal::pcmTrack($sound, SampleFormat::signed(16))], false, 'qt  ');
    $old = substr($movie, strpos($movie, 'elst') - 4, 28);
    $new = pack('N', 40).'elst'.pack('NN', 0, 2).pack('NNN', 12_000, 0xFFFFFFFF, 0x10000).substr($old, 16);
    foreach (['moov', 'trak', 'edts'] as $type) {
        $at = strpos($movie, $type) - 4;
        $movie = substr_replace($movie, pack('N', unpack('N', substr($movie, $at, 4))[1] + 12), $at, 4);
    }
    $at = strpos($movie, $old);
    $path = Scratch::write('picture-late.mov', substr_replace($movie, $new, $at, strlen($old)));
    $delivery = make($path, wish('wav'));
    expect(Signal::decodeFile($delivery->path)[0])->toBe(array_slice($sound[0], 12_000))->and($delivery->plan->sounds[0]->action)
        ->toBe(Action::Kept);
});

it('keeps PCM byte for byte when nothing is to change, and remakes it exactly in another order or width', function () {
    $sounds = [Signal::steps(50_000, 1), Signal::steps(50_000, 2)];
    $track = Signal::pcmTrack($sounds, SampleFormat::signed(16));
    $kept = make(Scratch::write('a.mov', Signal::movie([Signal::pictureTrack(26), $track], brand: 'qt  ')), wish('wav'));
    $swapped = make(Scratch::write('b.mov',
        Signal::movie([Signal::pcmTrack($sounds, SampleFormat::signed(16, true))], brand: 'qt  ')), wish('wav'));
    $wide = make($kept->path, wish('wav', bits: 24));
    $back = make($wide->path, wish('wav', bits: 16));
    expect($kept->plan->sounds[0]->action)->toBe(Action::Kept)->and(substr((string) file_get_contents($kept->path), 44))
        ->toBe(implode('', $track->packets))
        ->and($swapped->plan->sounds[0]->action)->toBe(Action::Remade)->and($swapped->plan->sounds[0]->dither)->toBeFalse()
        ->and(Comparison::of($kept->path, $swapped->path)->identical)->toBeTrue()
        ->and($wide->plan->sounds[0]->dither)->toBeFalse()->and(Comparison::of($kept->path, $wide->path)->identical)->toBeTrue()
        ->and($back->plan->sounds[0]->dither)->toBeTrue()
        ->and($kept->receipt->identical)->toBeTrue();
});

it('makes every combination that the order sheet offers, in its exact length',
    function (string $format, ?int $rate, ?int $bits, ?string $layout) {
        static $path = null;
        $path ??= Scratch::write('tour.mp4',
            Signal::movie([Signal::pictureTrack(26), Signal::aacTrack([Signal::sweep(50_000), Signal::sweep(50_000, 0.2)])]));
        $layouts = ['mono' => Layout::mono(), 'stereo' => Layout::stereo()];
        $delivery = make($path, wish($format, null, $rate, $format === 'mp3' ? null : $bits, $layout === null ? null : $layouts[$layout]));
        $track = Reader::read($delivery->path)->sound()[0];
        expect($track->timeline->samples())->toBe((int) round(50_000 * ($rate ?? 48_000) / 48_000))
            ->and($track->sound->rate)->toBe($rate ?? 48_000)
            ->and($track->sound->layout->name())->toBe($layout ?? 'stereo')
            ->and($track->sound->bits())->toBe($format === 'mp3' ? 0 : $bits ?? 16)
            ->and(abs($delivery->receipt->bytes - $delivery->plan->target->predictedBytes))->toBeLessThan($format === 'mp3' ? 1500 : 1);
    })->with(['wav', 'mp3'])->with([null, 8000, 44100])->with([null, 8, 24])->with([null, 'mono']);

it('decodes HE-AAC at its full rate and length', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 24000, Layout::mono()), RateControl::exactly(32),
        [Signal::sweep(30000)]);
    $movie = Signal::movie([WriterTrack::sound($encoder->audio(), ReplicatedAac::of($packets, true), $encoder->delay(), 30_000)], true,
        'M4A ', null, 24000);
    $delivery = make(Scratch::write('he.m4a', $movie), wish('wav'));
    expect([$delivery->receipt->samples, $delivery->receipt->rate, $delivery->receipt->layout])->toBe([60_000, 48_000, 'stereo']);
})->group('slow');

it('keeps an MP3 that is small enough already, and makes no lossy source larger', function () {
    $small = make(Scratch::write('a.wav', Signal::wave([Signal::sweep(60_000)], SampleFormat::signed(16))),
        Spec::sound(format('mp3'), RateControl::exactly(64), Scratch::folder()));
    $kept = make($small->path, wish('mp3'));
    $lower = make($kept->path, Spec::sound(format('mp3'), RateControl::exactly(32), Scratch::folder()));
    expect($kept->plan->sounds[0]->action)->toBe(Action::Kept)->and($kept->receipt->samples)->toBe(60_000)
        ->and(Comparison::of($small->path, $kept->path)->identical)->toBeTrue()
        ->and($lower->plan->sounds[0]->action)->toBe(Action::Remade)->and(Planning::steps($lower->plan))
        ->toContain('compressed with loss a second time');
});

it('plans as a plain value that JSON carries, from readings that JSON carries', function () {
    $path = Scratch::write('clip é.mp4',
        Signal::movie([Signal::pictureTrack(26), Signal::aacTrack([Signal::sweep(30_000)], lateTicks: 480)]));
    $reading = Reader::read($path);
    $stored = Reading::fromArray(json_decode((string) json_encode($reading->toArray(), JSON_PRESERVE_ZERO_FRACTION), true));
    $wish = wish('mp3', '/somewhere', 44100);
    $plan = Planning::plan($reading, $wish);
    expect($stored->toArray())->toEqual($reading->toArray())
        ->and(Planning::plan($stored, $wish)->toArray())->toEqual($plan->toArray())
        ->and(Planning::stored($plan)->toArray())->toEqual($plan->toArray())
        ->and(fn () => Plan::fromArray(['source' => 3]))->toThrow(PlanUnreadable::class);
});

it('refuses in one sentence what cannot be made', function (Closure $wish, string $says) {
    $path = Scratch::write('a.wav', Signal::wave([Signal::steps(100, 1), Signal::steps(100, 2)], SampleFormat::signed(16)));
    expect(fn () => Planning::plan(Reader::read($path), $wish()))->toThrow(CannotPlan::class, $says);
})->with([
    [fn () => wish('wav', track: 7), 'no sound track 7'],
    [fn () => wish('wav', rate: 100), 'cannot be made'],
]);

it('numbers, replaces or skips where the name is taken, also against another worker', function () {
    $path = Scratch::write('a.wav', Signal::wave([Signal::steps(1000, 1)], SampleFormat::signed(16)));
    $folder = Scratch::folder();
    $paths = array_map(fn (): string => basename(make($path, wish('mp3', $folder))->path), range(1, 3));
    $before = md5_file("$folder/a.mp3");
    $skipped = make($path, wish('mp3', $folder, existing: IfExists::Skip));
    file_put_contents("$folder/a.mp3", 'old');
    $replaced = make($path, wish('mp3', $folder, existing: IfExists::Replace));
    expect($paths)->toBe(['a.mp3', 'a 2.mp3', 'a 3.mp3'])->and($skipped->isSkipped())->toBeTrue()
        ->and(basename($replaced->path))->toBe('a.mp3')->and(md5_file("$folder/a.mp3"))->toBe($before)
        ->and(everythingIn($folder))->toEqualCanonicalizing(['a.mp3', 'a 2.mp3', 'a 3.mp3']);

    // Another worker takes the name between the plan and the placing.
    $place = new Workplace($folder);
    file_put_contents($place->temporary('x'), 'mine');
    file_put_contents("$folder/b.mp3", 'theirs');
    expect($place->place($place->temporary('x'), 'b.mp3', IfExists::Number))->toBe("$folder/b 2.mp3")
        ->and(file_get_contents("$folder/b.mp3"))->toBe('theirs');
});

it('sweeps away what killed workers left, but not what others are writing', function () {
    $folder = Scratch::folder();
    $place = new Workplace($folder);
    touch($place->temporary('old'), time() - 100);
    touch($place->temporary('busy'), time() - 100);
    touch($place->temporary('new'));
    $busy = fopen($place->temporary('busy'), 'r+');
    flock($busy, LOCK_EX);
    expect($place->sweep())->toBe(1)->and(everythingIn($folder))->toEqualCanonicalizing(['.octavox-busy.part', '.octavox-new.part']);
});

it('refuses a source that changed, and a result that is not what was written', function () {
    $path = Scratch::write('a.wav', Signal::wave([Signal::steps(50_000, 1)], SampleFormat::signed(16)));
    $plan = Planning::plan(Reader::read($path), $wish = wish('mp3'));
    file_put_contents($path, 'x', FILE_APPEND);
    expect(fn () => (new Maker)->make($plan, 'a'))->toThrow(SourceChanged::class);

    $plan = Planning::plan(Reader::read($path), $wish);
    // A drive that flips a bit: the temporary file is damaged between writing and reading back.
    $saboteur = new class($wish->place) implements Progress
    {
        public function __construct(private string $folder) {}

        public function reached(Phase $phase, int $done, int $of): void
        {
            if ($phase === Phase::Making && $done === $of && is_file($path = "$this->folder/.octavox-b.part")) {
                $file = fopen($path, 'r+');
                fseek($file, 100_000);
                fwrite($file, 'XXXXXXXX');
                fclose($file);
            }
        }
    };
    $damaged = Planning::plan(
        Reader::read(Scratch::write('b.wav', Signal::wave([Signal::steps(800_000, 1)], SampleFormat::signed(16)))), $wish);
    expect(fn () => (new Maker($saboteur))->make($damaged, 'b'))->toThrow(VerificationFailed::class, 'thrown away')
        ->and(everythingIn($wish->place))->toBe([]);
});

it('works in a child that speaks, can be cancelled and killed, and leaves nothing behind', function () {
    $path = Scratch::write('long.wav', Signal::wave([Signal::steps(3_000_000, 1)], SampleFormat::signed(16)));
    $folder = Scratch::folder();
    $plan = Planning::plan(Reader::read($path), wish('mp3', $folder));
    $seen = [];
    $child = MakerProcess::start($plan);
    while ($child->listen()) {
        $child->wait(1);
        $seen[] = $child->done();
    }
    expect($child->result()->isSkipped())->toBeFalse()->and(count(array_unique($seen)))->toBeGreaterThan(2)->and(everythingIn($folder))
        ->toBe(['long.mp3']);

    $cancelled = MakerProcess::start($plan, 'c');
    while ($cancelled->listen() && $cancelled->done() === 0) {
        $cancelled->wait(1);
    }
    expect(file_exists("$folder/.octavox-c.part"))->toBeTrue();
    $cancelled->cancel();
    expect(fn () => $cancelled->result())->toThrow(Abandoned::class)->and(everythingIn($folder))->toBe(['long.mp3']);

    $token = 'killed-'.getmypid();
    $killed = MakerProcess::start($plan, $token);
    while ($killed->listen() && $killed->done() === 0) {
        $killed->wait(1);
    }
    exec("pkill -KILL -f 'maker.php $token$'");
    while ($killed->listen()) {
        $killed->wait(1);
    }
    expect(fn () => $killed->result())->toThrow(Interrupted::class, 'begun again')->and(everythingIn($folder))->toBe(['long.mp3']);
});

it('counts a file that got its name in the very moment in which its process was ended', function (string $end) {
    $path = Scratch::write('take.wav', Signal::wave([Signal::steps(48_000, 1)], SampleFormat::signed(16)));
    $folder = Scratch::folder();
    $plan = Planning::plan(Reader::read($path), wish('flac', $folder));
    for ($number = 1; $number <= 10; $number++) {
        $token = "moment-$number-".getmypid();
        $child = MakerProcess::start($plan, $token);
        $made = "$folder/take".($number === 1 ? '' : " $number").'.flac';
        for ($looks = 0; $looks < 10_000_000 && ! is_file($made); $looks++) {
            clearstatcache();
        }
        $end === 'cancelled' ? $child->cancel() : posix_kill(proc_get_status((fn () => $this->process)->call($child))['pid'], SIGKILL);
        while ($child->listen()) {
            $child->wait(1);
        }
        $result = $child->result();
        expect($result->path)->toBe($made)->and($result->receipt?->samples)->toBe(48_000)->and($result->receipt?->bytes)
            ->toBe(filesize($made));
    }
    expect(everythingIn($folder))->toHaveCount(10);
})->with(['cancelled', 'killed']);

it('ends a child that says nothing any more, and leaves nothing of it', function () {
    $path = Scratch::sparse('long.wav', 44 + 2 * 86_400_000,
        [0 => substr(Signal::wave([[0.0]], SampleFormat::signed(16)), 0, 40).pack('V', 2 * 86_400_000)]);
    $folder = Scratch::folder();
    $token = 'hangs-'.getmypid();
    $child = MakerProcess::start(Planning::plan(Reader::read($path), wish('mp3', $folder)), $token, secondsSilent: 2);
    while ($child->listen() && $child->done() === 0) {
        $child->wait(1);
    }
    exec("pkill -STOP -f 'maker.php $token$'");
    for ($looks = 0; $looks < 300 && $child->listen(); $looks++) {
        $child->wait(0.2);
    }
    exec("pkill -KILL -f 'maker.php $token$'");
    expect(fn () => $child->result())
        ->toThrow(ChildDied::class, 'no sign for 2 seconds')->and(everythingIn($folder))->toBe([])
        ->and(trim((string) shell_exec("pgrep -f 'maker.php $token$'")))->toBe('');
});

it('stops by itself when the process that waited for it is gone', function () {
    // Half an hour of silence: far more work than the waiting process lives.
    $path = Scratch::sparse('long.wav', 44 + 2 * 86_400_000,
        [0 => substr(Signal::wave([[0.0]], SampleFormat::signed(16)), 0, 40).pack('V', 2 * 86_400_000)]);
    $folder = Scratch::folder();
    $plan = Scratch::write('plan.json',
        (string) json_encode(['token' => 'orphan', 'plan' => Planning::plan(Reader::read($path), wish('mp3', $folder))->toArray()]));
    $maker = dirname(__DIR__).'/bin/maker.php';
    $waiting = Scratch::write('wait.sh', <<<SHELL
        php -d ffi.enable=1 '$maker' < '$plan' > /dev/null 2>&1 &
        echo \$!
        while [ ! -e '$folder/.octavox-orphan.part' ]; do sleep 0.02; kill -0 \$! || exit 1; done
        kill -KILL \$\$
        SHELL);
    $status = 0;
    $said = [];
    exec('sh '.escapeshellarg($waiting), $said, $status);
    $orphan = (int) ($said[0] ?? 0);
    expect($status)->toBe(128 + SIGKILL)->and($orphan)->toBeGreaterThan(0);
    expect(Waiting::until(fn (): bool => ! posix_kill($orphan, 0)))->toBeTrue()->and(everythingIn($folder))->toBe([]);
});

it('carries out a batch on all hands; one bad file never stops the rest', function () {
    $good = Scratch::write('good.wav', Signal::wave([Signal::steps(40_000, 1)], SampleFormat::signed(16)));
    $folder = Scratch::folder();
    $plans = array_map(fn (int $number): Plan => Planning::plan(Reader::read($good), wish('mp3', $folder))
        ->named("$number.mp3"), range(1, 5));
    $bad = $plans[2]->toArray();
    $bad['sounds'][0]['track'] = 9;
    $plans[2] = Plan::fromArray($bad);
    $ended = [];
    (new WorkerPool(2))->carryOut($plans, [], function (int $index, Result|Failure $result) use (&$ended): void {
        $ended[$index] = $result instanceof Failure ? $result->code() : ($result->isSkipped() ? 'skipped' : 'done');
    });
    ksort($ended);
    expect($ended)->toBe(['done', 'done', 'source-changed', 'done', 'done'])->and(everythingIn($folder))->toHaveCount(4);
});

it('compares: the same, shifted, lower, other rates', function () {
    $sound = Signal::sweep(60_000);
    $write = fn (array $samples, int $rate = 48000): string => Scratch::write('x.wav',
        Signal::wave([$samples], SampleFormat::float(32), $rate));
    $a = $write($sound);
    $late = Comparison::of($a, $write([...array_fill(0, 321, 0.0), ...$sound]));
    $lower = Comparison::of($a, $write(array_map(fn (float $value): float => 0.9 * $value, $sound)));
    expect(Comparison::of($a, $write($sound))->identical)->toBeTrue()
        ->and($late->offset)->toBe(321)->and($late->identical)->toBeFalse()->and($late->samples)->toBe([60_000, 60_321])
        ->and($late->difference)->toBeNull()
        ->and($lower->difference)->toEqualWithDelta(-20.0, 0.05)->and($lower->offset)->toBe(0)
        ->and(Comparison::of($a, $write($sound, 44100))->toArray()['comparable'])->toBeFalse();
});

it('makes names that every system accepts', function (string $wanted, string $legal) {
    expect(LegalName::from($wanted))->toBe($legal);
})->with([
    ['a/b\\c:d', 'a-b-c-d'], ['..hidden.. ', 'hidden'], ['con', '_con'], ['CON.txt', '_CON.txt'], ["tab\tnew\nline", 'tabnewline'],
    ['', 'untitled'], ['???', 'untitled'],
    [str_repeat('ä', 300), str_repeat('ä', 100)], ["broken\xFF", 'broken'], ['Tour 🎺', 'Tour 🎺'],
]);

it('makes and verifies the shortest sounds in every format and at every rate that it has', function (string $name) {
    $capabilities = Outputs::named($name)->capabilities();
    $folder = Scratch::folder();
    foreach (array_slice($capabilities->rates === [] ? [8000, 48000] : $capabilities->rates, 0, 6) as $rate) {
        foreach ([1, 100, 999, 1000, 1153] as $frames) {
            file_put_contents("$folder/short.wav", Signal::wave([array_map(fn (int $at): float => 0.3 * sin($at * 0.05), range(0,
                $frames - 1))], SampleFormat::signed(16), $rate));
            $plan = Planning::plan(Reader::read("$folder/short.wav"), Spec::sound(Outputs::named($name), RateControl::none(), $folder,
                rate: $rate));
            expect((new Maker)->make($plan, "$rate$frames")->receipt?->samples)->toBeGreaterThanOrEqual($frames);
        }
    }
})->with(['mp2', 'adts', 'mp3', 'aac', 'opus', 'vorbis', 'gsm', 'vox', 'ima', 'msadpcm']);

it('takes whole numbers of telephone codecs into 16 bits as they are', function (string $name) {
    $rate = $name === 'vox' ? 8000 : 8000;
    $source = Scratch::write('s.wav', Signal::wave([Signal::sweep(8000, 0.3, 0.00001)], SampleFormat::signed(16), $rate));
    $coded = (new Maker)->make(Planning::plan(Reader::read($source), Spec::sound(Outputs::named($name), RateControl::none(),
        Scratch::folder())), 'c')->path;
    $reading = Reader::read($coded, $name === 'vox' ? HeaderlessFormat::parse('vox:8000') : null);
    $plans = [Planning::plan($reading, Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), bits: 16)),
        Planning::plan($reading, Spec::sound(Outputs::named('flac'), RateControl::none(), Scratch::folder(), bits: 16))];
    $float = Planning::plan($reading, Spec::sound(Outputs::named('float'), RateControl::none(), Scratch::folder()));
    $wanted = Signal::decodeFile((string) (new Maker)->make($float, 'f')->path);
    foreach ($plans as $number => $plan) {
        expect($plan->sound()->dither)->toBeFalse()->and(Signal::decodeFile((string) (new Maker)->make($plan, "p$number")
            ->path) === $wanted)->toBeTrue();
    }
})->with(['gsm', 'ima', 'msadpcm', 'vox', 'ulaw', 'alaw']);

it('reads whole numbers of up to 64 bits', function (int $bits) {
    $values = [0, 1 << ($bits - 2), -(1 << ($bits - 2)), (1 << ($bits - 3)) + 12_345, -1];
    $data = implode('', array_map(fn (int $value): string => substr(pack('P', $value), 0, intdiv($bits, 8)), $values));
    $wave = 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 48_000, 48_000 * intdiv($bits, 8), intdiv($bits, 8),
        $bits).'data'.pack('V', strlen($data)).$data;
    $path = Scratch::write('wide.wav', $wave);
    $made = (new Maker)->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named('float'), RateControl::none(),
        Scratch::folder())), 'w')->path;
    expect(array_map(fn (float $sample): float => round($sample, 6), Signal::decodeFile((string) $made)[0]))
        ->toBe(array_map(fn (int $value): float => round($value / 2 ** ($bits - 1), 6), $values));
    expect((new Maker)->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(),
        Scratch::folder())), 'v')->receipt?->samples)->toBe(5);
})->with([40, 48, 56, 64]);
