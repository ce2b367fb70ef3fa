<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\IsoMedia\Sizes;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Make\FileSum;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\PacketSum;
use Octavox\Core\Make\Result;
use Octavox\Core\Make\Summing;
use Octavox\Core\Make\VerificationFailed;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Parallel\ForkedTask;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Testing\WriterTrack;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** Bytes that look like nothing, always the same. */
function noise(int $count): string
{
    mt_srand(7);
    $block = '';
    for ($index = 0; $index < 65_536; $index++) {
        $block .= chr(mt_rand(0, 255));
    }
    $bytes = '';
    for ($index = 0; strlen($bytes) < $count; $index++) {
        $bytes .= pack('J', $index).$block;
    }

    return substr($bytes, 0, $count);
}

it('works beside, and tells what it has found', function () {
    $secret = 'known here';
    $aside = ForkedTask::begin(fn ($input): array => ['heard' => stream_get_contents($input), 'knows' => $secret,
        'process' => getmypid(), 'real' => 0.1]);
    expect($aside->tell(str_repeat('x', 500_000)))->toBeTrue()->and($aside->tell('end'))->toBeTrue();
    $found = $aside->result(fn () => null);
    expect($found['heard'] === str_repeat('x', 500_000).'end')->toBeTrue()->and($found['knows'])->toBe('known here')
        ->and($found['real'])->toBe(0.1)
        ->and($found['process'])->not->toBe(getmypid())->and($aside->result(fn () => null))->toBe($found);
});

it('has nothing to tell where it failed or was ended, and ends nothing that belongs to the first process', function () {
    $path = Scratch::write('kept', 'kept');
    $owner = new class($path)
    {
        public function __construct(private readonly string $path) {}

        public function __destruct()
        {
            unlink($this->path);
        }
    };
    $failing = ForkedTask::begin(fn () => throw new RuntimeException('trouble'));
    $endless = ForkedTask::begin(function (): array {
        while (true) {
            sleep(1);
        }
    });
    $dying = ForkedTask::begin(fn (): array => ['killed' => posix_kill(posix_getpid(), SIGKILL)]);
    expect($failing->result(fn () => null))->toBeNull()->and($dying->result(fn () => null))->toBeNull()->and(is_file($path))->toBeTrue();
    $endless->abandon();
    expect($endless->result(fn () => null))->toBeNull()->and(pcntl_waitpid(-1, $status, WNOHANG))->toBeLessThan(1);
    unset($owner);
    expect(is_file($path))->toBeFalse();
});

it('does not outlive the process that began it', function () {
    $script = Scratch::write('begin.php',
        '<?php require '.var_export(dirname(__DIR__).'/bin/autoload.php', true).'; $aside = '.ForkedTask::class
        .'::begin(function (): array { while (true) { sleep(60); } }); posix_kill(getmypid(), SIGKILL);');
    // Both have the pipe that is read: it ends when both have ended.
    $command = sprintf('timeout 30 sh -c %s',
        escapeshellarg(escapeshellarg(PHP_BINARY).' -d ffi.enable=1 '.escapeshellarg($script).' | cat'));
    exec($command, $said, $status);
    expect([$status, $said])->toBe([0, []]);
});

it('finds a sum here where the other process cannot', function () {
    $own = getmypid();
    $work = fn (callable $sign): string => getmypid() === $own ? 'found here' : throw new RuntimeException('not there');
    expect(Summing::begin($work, Summing::LONG_BYTES)->result(fn () => null))->toBe('found here');
    $there = Summing::begin(fn (callable $sign): string => getmypid() === $own ? 'here' : 'there', Summing::LONG_BYTES);
    expect($there->result(fn () => null))->toBe('there')
        ->and(Summing::begin(fn (): string => (string) getmypid(), 5)->result(fn () => null))->toBe((string) $own);
    $path = Scratch::write('long', noise(Summing::LONG_BYTES + 5));
    expect(FileSum::begin($path)->result(fn () => null))->toBe(hash_file('xxh128', $path));
});

it('lets two processes read one open file, each at its own place', function () {
    $all = noise(3_000_000);
    $bytes = FileBytes::open(Scratch::write('both', $all));
    $read = function (int $seed) use ($bytes, $all): bool {
        mt_srand($seed);
        for ($round = 0; $round < 3000; $round++) {
            $at = mt_rand(0, 2_900_000);
            if ($bytes->read($at, 50) !== substr($all, $at, 50)) {
                return false;
            }
        }

        return true;
    };
    $aside = ForkedTask::begin(fn (): array => ['right' => $read(1)]);
    expect($read(2))->toBeTrue()->and($aside->result(fn () => null))->toBe(['right' => true]);
});

it('copies stretches of other files between what it writes, large and small, together or apart', function (bool $summed) {
    $all = noise(20_000_000);
    $file = FileBytes::open(Scratch::write('source', $all));
    $sink = FileSink::create(Scratch::folder().'/target');
    if (! $summed) {
        $sink->needsNoChecksum();
    }
    $wanted = '';
    mt_srand(11);
    $place = 0;
    for ($round = 0; $round < 400; $round++) {
        $count = [0, 1, 700, 40_000, 300_000][mt_rand(0, 4)];
        $place = mt_rand(0, 2) === 0 ? mt_rand(0, 19_000_000) : min(19_000_000, $place);
        match (mt_rand(0, 3)) {
            0 => $sink->write(substr($all, $place, $count)),
            1 => $sink->copy(Stretch::of(substr($all, $place, $count))),
            default => $sink->copy(Stretch::in($file, $place, $count)),
        };
        $wanted .= substr($all, $place, $count);
        $place += $count;
        expect($sink->position())->toBe(strlen($wanted));
    }
    $sink->copy(Stretch::in($file, 0, 20_000_000));
    $wanted .= $all;
    expect($sink->checksum())->toBe($summed ? hash('xxh128', $wanted) : null);
    $sink->replace(5, 'replaced');
    $sink->flush();
    $sink->close();
    expect((string) file_get_contents($sink->path) === substr_replace($wanted, 'replaced', 5, 8))->toBeTrue();
})->with(['summed' => true, 'not summed' => false]);

it('leaves nothing of what another process has put where more was expected', function () {
    $path = Scratch::folder().'/shared';
    $sink = FileSink::create($path);
    $sink->write('head');
    $other = FileSink::from($path, 10);
    $other->write(str_repeat('later', 20_000));
    $other->close();
    $sink->write('all that there is');
    $sink->startWriteback();
    expect(file_get_contents($path))->toBe('headall that there is');
    $sink->close();
});

it('copies many small parts and what lies far apart in a long file', function () {
    $window = 268_435_456;
    $path = Scratch::sparse('long.bin', $window + 40_000_000, [0 => 'begin', $window - 3 => 'border', $window + 30_000_000 => 'end']);
    $file = FileBytes::open($path);
    $sink = FileSink::create(Scratch::folder().'/target');
    $sink->needsNoChecksum();
    $wanted = '';
    for ($round = 0; $round < 3000; $round++) {
        $sink->write((string) $round);
        $sink->copy(Stretch::in($file, $round % 5, 2));
        $wanted .= $round.substr('begin', $round % 5, 2).($round % 5 === 4 ? "\0" : '');
    }
    foreach ([[$window - 100_000, 200_000], [0, 40_000], [$window + 29_990_000, 40_000]] as [$at, $count]) {
        $sink->copy(Stretch::in($file, $at, $count));
        $wanted .= $file->read($at, $count);
    }
    $sink->close();
    expect((string) file_get_contents($sink->path) === $wanted)->toBeTrue()->and(substr_count($wanted, 'border'))->toBe(1)
        ->and(substr_count($wanted, 'end'))->toBe(1);
});

it('says so where a source becomes shorter while it is copied, and goes on living', function () {
    $path = Scratch::write('shrinking', noise(3_000_000));
    $file = FileBytes::open($path);
    $sink = FileSink::create(Scratch::folder().'/target');
    $sink->needsNoChecksum();
    $sink->copy(Stretch::in($file, 0, 100_000));
    $sink->copy(Stretch::in($file, 200_000, 2_500_000));
    $cut = fopen($path, 'r+b');
    ftruncate($cut, 1_000_000);
    expect(fn () => $sink->startWriteback())->toThrow(FileUnreadable::class, 'Reading stopped at byte');
});

it('takes for its own what another process has put where it is', function () {
    $path = Scratch::folder().'/shared';
    $sink = FileSink::create($path);
    $sink->needsNoChecksum();
    $sink->write('head');
    $other = FileSink::from($path, 10);
    $other->write(str_repeat('later', 20_000));
    $other->close();
    $sink->write('middle');
    $sink->copy(Stretch::in(FileBytes::open($path), 10, 100_000));
    $sink->replace(0, 'HEAD');
    $sink->write('end');
    $sink->close();
    expect((string) file_get_contents($path) === 'HEADmiddle'.str_repeat('later', 20_000).'end')->toBeTrue()
        ->and($sink->position())->toBe(100_013);
});

it('knows what a stretch holds without reading it, and says where it would end beyond the file', function () {
    $bytes = new MemoryBytes('0123456789');
    $stretch = Stretch::in($bytes, 2, 5);
    expect($stretch->bytes())->toBe('23456')->and($stretch->after(2)->bytes())->toBe('456')
        ->and($stretch->joined(Stretch::in($bytes, 7, 3))?->bytes())->toBe('23456789')
        ->and($stretch->joined(Stretch::in($bytes, 8, 1)))->toBeNull()->and($stretch->joined(Stretch::of('789')))->toBeNull()
        ->and(fn () => Stretch::in($bytes, 8, 3))->toThrow(BytesMissing::class)->and(fn () => Stretch::in($bytes, -1, 3))
        ->toThrow(BytesMissing::class)
        ->and(iterator_to_array(Stretch::of(str_repeat('a', (1 << 20) + 1))->pieces()))->toBe([str_repeat('a', 1 << 20), 'a']);
    $sink = new MemorySink;
    $sink->copy($stretch);
    expect($sink->bytes())->toBe('23456');
});

it('adds up sizes exactly, small and large', function (int $count, int $most) {
    mt_srand($count);
    $sizes = array_map(fn (): int => mt_rand(0, $most), range(1, $count));
    expect(Sizes::sum(pack('N*', ...$sizes)))->toBe(array_sum($sizes));
})->with([[1, 5], [2, 0xFFFFF], [4096, 0xFFFFF], [4097, 0xFFFFF], [9001, 700], [5000, 0xFFFFFFFF], [3, 0xFFFFFFFF]]);

it('adds up sizes that are all as large as can be', function () {
    expect(Sizes::sum(str_repeat(pack('N', 0xFFFFF), 4096)))->toBe(4096 * 0xFFFFF)->and(Sizes::sum(str_repeat("\xFF", 4 * 4096)))
        ->toBe(4096 * 0xFFFFFFFF)->and(Sizes::sum(''))->toBe(0);
});

/** Two minutes of eight channels, more than twenty megabytes. */
function longWave(): string
{
    $audio = SampleFormat::signed(16);
    $samples = noise(8 * 2 * 12_000 * 120);

    return Scratch::write('eight.wav', 'RIFF'.pack('V', 36 + strlen($samples)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 8, 12_000, 12_000 * 16, 16,
        $audio->bits).'data'.pack('V', strlen($samples)).$samples);
}

function keptLong(string $path, string $format, string $pieces = ''): Result
{
    $plan = Planning::plan(Reader::read($path),
        Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder(), shaping: Spec::shaping(pieces: $pieces)));
    expect($plan->sounds[0]->action)->toBe(Action::Kept)->and($plan->target->predictedBytes)->toBeGreaterThan(Summing::LONG_BYTES);

    return (new Maker)->make($plan, 'kept');
}

it('keeps long uncompressed sound to the byte', function (string $format, string $pieces) {
    $path = longWave();
    $made = keptLong($path, $format, $pieces);
    [$from, $until] = $pieces === '' ? [0, 120 * 12_000] : [5 * 12_000, 115 * 12_000];
    $bytes = substr((string) file_get_contents($path), 44 + 16 * $from, 16 * ($until - $from));
    $result = Opener::open((string) $made->path);
    expect($made->receipt->samples)->toBe($until - $from)->and($made->receipt->identical)->toBeTrue()->and($made->receipt->checksum)
        ->toBe(hash_file('xxh128', (string) $made->path))
        ->and(PacketSum::ofAll($result->media, $result->sound()[0], [], fn () => null))->toBe(hash('xxh128', $bytes))
        ->and(Signal::packetsOf((string) $made->path))->toBe(hash('xxh128', $bytes))
        ->and(PacketSum::ofAll($result->media, $result->sound()[0], [1000, 70_000], fn () => null))
        ->toBe(implode(' ', [hash('xxh128', substr($bytes, 0, 16_000)), hash('xxh128', substr($bytes, 16_000, 69_000 * 16)),
            hash('xxh128', substr($bytes, 70_000 * 16))]));
})->with([['caf', ''], ['caf', '0:05-1:55'], ['wav', '0:05-1:55']]);

it('keeps uncompressed sound of a movie to the byte', function () {
    $audio = AudioFormat::pcm(SampleFormat::signed(24), 48_000, Layout::stereo());
    $second = noise(6 * 48_000);
    $packets = array_map(fn (int $number): Packet => new Packet($second, $number * 48_000, 48_000), range(0, 69));
    $path = Scratch::write('loud.mov',
        Signal::movie([Signal::pictureTrack(5), WriterTrack::sound($audio, $packets, 0, 70 * 48_000)], brand: 'qt  '));
    expect(Signal::packetsOf((string) keptLong($path, 'wav')->path))->toBe(hash('xxh128', str_repeat($second, 70)));
});

/** A video with large pictures. */
function longVideo(): string
{
    return Scratch::write('large.mp4', Signal::movie([Signal::pictureTrack(100, 250_000), Signal::aacTrack([Signal::sweep(4 * 48_000)])]));
}

it('re-wraps large pictures to the byte', function (string $container) {
    $path = longVideo();
    $plan = Planning::plan(Reader::read($path), Spec::video(VideoOutputs::named($container), null, RateControl::none(), Scratch::folder()));
    $made = (new Maker)->make($plan, 'video');
    $pictures = function (string $path): array {
        $opened = Opener::open($path);
        $sums = [];
        foreach ($opened->media->pictures($opened->picture()) as $sample) {
            $sums[] = hash('xxh128', $sample->data->bytes());
        }

        return $sums;
    };
    expect($pictures((string) $made->path))->toBe($pictures($path))->toHaveCount(100)->and($made->receipt->checksum)
        ->toBe(hash_file('xxh128', (string) $made->path));
})->with(['mov', 'mkv']);

it('finds out that what it has copied was changed on the disk', function (Plan $plan, string $reason) {
    $changer = new class($plan->target->folder) implements Progress
    {
        private bool $changed = false;

        public function __construct(private readonly string $folder) {}

        public function reached(Phase $phase, int $done, int $of): void
        {
            if ($phase === Phase::Verifying && ! $this->changed) {
                $this->changed = true;
                foreach (glob($this->folder.'/.*') ?: [] as $path) {
                    if (is_file($path)) {
                        $file = fopen($path, 'r+b');
                        fseek($file, 12_345_678);
                        fwrite($file, "\0changed\xFF");
                        fclose($file);
                    }
                }
            }
        }
    };
    expect(fn () => (new Maker($changer))->make($plan, 'changed'))->toThrow(VerificationFailed::class, $reason)
        ->and(array_diff(scandir($plan->target->folder), ['.', '..']))->toBe([]);
})->with([
    'sound' => [fn (): Plan => Planning::plan(Reader::read(longWave()),
        Spec::sound(Outputs::named('caf'), RateControl::none(), Scratch::folder())), 'not those that were written'],
    'pictures' => [fn (): Plan => Planning::plan(Reader::read(longVideo()),
        Spec::video(VideoOutputs::named('mov'), null, RateControl::none(), Scratch::folder())), 'not those of the source'],
]);
