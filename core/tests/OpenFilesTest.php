<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Decode\FrameReader;
use Octavox\Core\Failure;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** How many files this process has open. */
function filesOpen(): int
{
    return count(scandir('/proc/self/fd'));
}

beforeEach(fn () => gc_disable());
afterEach(fn () => gc_enable());

it('has no file open any more once nobody holds it, be it read, decoded or made', function (string $format) {
    // With no collection of what refers to itself: a folder of thousands is read in one process.
    $source = Scratch::write('take.wav', Signal::wave([Signal::steps(48_000, 1)], SampleFormat::signed(16)));
    $into = Scratch::folder();
    $make = function (string $path, string $to, string $token) use ($into): string {
        $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named($to), Outputs::named($to)->capabilities()->kbps === []
            ? RateControl::none()
            : RateControl::exactly(64), $into));

        return (new Maker)->make($plan, $token)->path;
    };
    $before = filesOpen();
    $made = $make($source, $format, 'first');
    expect(filesOpen())->toBe($before);
    foreach ([fn () => Reader::read($made), fn () => FrameReader::open($made)->skip(5000), fn () => $make($made, $format, 'kept'), fn () => $make($made, 'wav', 'wave')] as $use) {
        try {
            $use();
        } catch (Failure) {
            // What cannot be, leaves nothing open either.
        }
        expect(filesOpen())->toBe($before);
    }
})->with(fn (): array => array_values(array_filter(array_map(fn ($one): string => $one->name(), Outputs::all()),
    fn (string $name): bool => ! in_array($name, ['ac3', 'eac3', 'dts', 'mka', 'raw', 'vox'], true))));

it('has no file of a video open any more either', function (string $container) {
    $movie = Scratch::write('take.mp4', Signal::movie([Signal::pictureTrack(26), Signal::aacTrack([Signal::sweep(48_000)])]));
    $before = filesOpen();
    $plan = Planning::plan(Reader::read($movie), Spec::video(VideoOutputs::named($container), null, RateControl::none(),
        Scratch::folder()));
    $path = (new Maker)->make($plan, 'video')->path;
    Reader::read($path);
    FrameReader::open($path)->skip(5000);
    unset($plan);
    expect(filesOpen())->toBe($before);
})->with(['mov', 'mp4', 'mkv']);

it('reads a folder of hundreds with few files open', function () {
    $folder = Scratch::folder();
    $movie = Signal::movie([Signal::pictureTrack(26), Signal::aacTrack([Signal::sweep(48_000)])]);
    for ($number = 0; $number < 150; $number++) {
        file_put_contents(sprintf('%s/%03d.mp4', $folder, $number), $movie);
    }
    $process = proc_open(['/bin/sh', '-c', 'ulimit -n 40; exec "$0" read "$1" --json', dirname(__DIR__, 2).'/octavox', $folder],
        [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    $said = json_decode((string) stream_get_contents($pipes[1]), true);
    expect([stream_get_contents($pipes[2]), proc_close($process)])->toBe(['', 0])->and(array_unique(array_map(fn (array $one): string => $one['container'] ?? 'none',
        $said['sources'] ?? [])))->toBe(['mp4'])->and($said['sources'])->toHaveCount(150);
});
