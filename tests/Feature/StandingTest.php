<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Jobs\AnalyzeTrack;
use App\Sources\Models\Source;
use App\Watching\Actions\TendWatchedFolders;
use App\Watching\Models\Arrival;
use App\Watching\Models\WatchedFolder;
use App\Watching\Queries\FolderContents;
use App\Watching\Values\ArrivalState;
use App\Watching\Values\WatchedFile;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\VideoDiscWriter;
use Tests\TestCase;

/** A standing order over a folder of the shelf. */
function standing(mixed $test, array $fields = []): WatchedFolder
{
    is_dir($test->home.'/shelf/in') || mkdir($test->home.'/shelf/in');
    $test->post('/standing', $fields + ['title' => 'Recorder', 'shelf' => 'Videos', 'folder' => 'in', 'goes' => 'by:put-away', 'nested' => '1'])
        ->assertRedirect();

    return WatchedFolder::query()->latest('id')->firstOrFail();
}

/** So much time passes, and the keeper looks. */
function tend(mixed $test, int $seconds = 6): void
{
    $test->travel($seconds)->seconds();
    app()->forgetScopedInstances();
    app(TendWatchedFolders::class)->run();
}

/** @return array<string, string> states by path */
function states(): array
{
    return Arrival::query()->orderBy('path')->get()->mapWithKeys(fn (Arrival $one): array => [$one->path => $one->state->value])->all();
}

it('takes a file once it has stopped growing, and makes of it what was asked', function () {
    $standing = standing($this, ['place' => '', 'name' => '{stem} put away']);
    $path = $this->home.'/shelf/in/take.wav';
    $whole = TestCase::wave(4800);
    file_put_contents($path, substr($whole, 0, 2000));
    tend($this, 0);
    expect(states())->toBe(['take.wav' => 'arriving']);
    $this->get("/standing/$standing->id")->assertOk()->assertSee('arriving')->assertSee('Nothing new lies there');
    file_put_contents($path, substr($whole, 0, 5000));
    tend($this);
    expect(states())->toBe(['take.wav' => 'arriving'])->and(Source::query()->count())->toBe(0);
    file_put_contents($path, $whole);
    tend($this);
    tend($this);
    tend($this);
    expect(states())->toBe(['take.wav' => 'ordered'])->and(Result::query()->sole()->state)->toBe(ResultState::Done)
        ->and(basename((string) Result::query()->sole()->path))->toBe('take put away.flac')
        ->and(Order::query()->sole()->title)->toStartWith('Recorder, ');
    $this->get('/standing')->assertOk()->assertSee('watching')->assertSee('To put away');
    $this->get("/standing/$standing->id")->assertSee('take.wav')->assertSee('Recorder, ');
    foreach ([1, 2, 3] as $ignored) {
        tend($this);
    }
    expect(Result::query()->count())->toBe(1)->and(Order::query()->count())->toBe(1);
});

it('takes five hundred files that arrive and are renamed while it looks, each once', function () {
    standing($this);
    Queue::fake([MakeResult::class, AnalyzeTrack::class]);
    mkdir($this->home.'/shelf/in/day 1');
    mt_srand(5);
    $names = [];
    for ($round = 0; $round < 5; $round++) {
        for ($number = 0; $number < 100; $number++) {
            $name = sprintf('%s/shelf/in/%s%03d.wav', $this->home, mt_rand(0, 1) === 1 ? 'day 1/' : '', 100 * $round + $number);
            file_put_contents($name, TestCase::wave(200 + 100 * $round + $number));
            touch($name, time() - 100);
            $names[] = $name;
        }
        tend($this);
        // Some are called otherwise meanwhile, some move into another folder.
        foreach (array_rand($names, 20) as $index) {
            $to = sprintf('%s/shelf/in/%srenamed %d-%d.wav', $this->home, mt_rand(0, 1) === 1 ? 'day 1/' : '', $round, $index);
            rename($names[$index], $to);
            $names[$index] = $to;
        }
    }
    foreach ([1, 2, 3] as $ignored) {
        tend($this);
    }
    expect(Arrival::query()->count())->toBe(500)->and(Result::query()->count())->toBe(500)
        ->and(Result::query()->distinct()->count('source_id'))->toBe(500)
        ->and(Arrival::query()->where('state', ArrivalState::Ordered)->count())->toBe(500);
    $before = Source::query()->count();
    tend($this);
    expect(Source::query()->count())->toBe($before)->and(Result::query()->count())->toBe(500);
});

it('leaves what it made itself, what is no recording, and what it has the content of already', function () {
    config(['octavox.writable' => 'Videos']);
    standing($this, ['place' => 'beside']);
    file_put_contents($this->home.'/shelf/in/one.wav', TestCase::wave(900));
    file_put_contents($this->home.'/shelf/in/notes.txt', 'no sound');
    file_put_contents($this->home.'/shelf/in/broken.wav', 'RIFF nothing');
    file_put_contents($this->home.'/shelf/in/.hidden.wav', TestCase::wave(901));
    symlink('/etc', $this->home.'/shelf/in/out');
    foreach ([1, 2, 3, 4] as $ignored) {
        tend($this);
    }
    copy($this->home.'/shelf/in/one.wav', $this->home.'/shelf/in/same.wav');
    foreach ([1, 2, 3, 4] as $ignored) {
        tend($this);
    }
    expect(states())->toBe(['broken.wav' => 'failed', 'notes.txt' => 'left', 'one.flac' => 'left', 'one.wav' => 'ordered',
        'same.wav' => 'left'])
        ->and(Arrival::query()->where('path', 'one.flac')->value('says'))->toBe('It was made here.')
        ->and(Arrival::query()->where('path', 'same.wav')->value('says'))->toContain('very content of “one.wav”')
        ->and(Result::query()->count())->toBe(1);
});

it('pauses, goes on, and survives that its folder goes away and comes back', function () {
    $standing = standing($this);
    $this->post("/standing/$standing->id/work", ['paused' => 1])->assertSessionHas('said');
    file_put_contents($this->home.'/shelf/in/a.wav', TestCase::wave(910));
    tend($this);
    expect(states())->toBe([]);
    $this->get("/standing/$standing->id")->assertSee('Paused: nothing is taken.')->assertSee('One file')->assertSee('a.wav');
    $this->post("/standing/$standing->id/work", ['paused' => 0]);
    rename($this->home.'/shelf/in', $this->home.'/shelf/away');
    tend($this);
    $this->get('/standing')->assertSee('This is no longer on the shelf.');
    rename($this->home.'/shelf/away', $this->home.'/shelf/in');
    foreach ([1, 2, 3, 4] as $ignored) {
        tend($this);
    }
    expect(states())->toBe(['a.wav' => 'ordered'])->and($standing->refresh()->trouble)->toBe('');
    // A file that goes before it was taken was never there; another one under a known name is another one.
    file_put_contents($this->home.'/shelf/in/b.wav', TestCase::wave(920));
    tend($this, 0);
    unlink($this->home.'/shelf/in/b.wav');
    tend($this);
    rename($this->home.'/shelf/in/a.wav', $this->home.'/shelf/kept.wav');
    file_put_contents($this->home.'/shelf/in/a.wav', TestCase::wave(930));
    foreach ([1, 2, 3, 4] as $ignored) {
        tend($this);
    }
    expect(array_unique(states()))->toBe(['a.wav' => 'ordered'])->and(Result::query()->where('state', ResultState::Done)->count())->toBe(2)
        ->and(Result::query()->pluck('samples')->sort()->values()->all())->toBe([910, 930]);
    $this->delete("/standing/$standing->id")->assertRedirect('/standing');
    expect(Arrival::query()->count())->toBe(0)->and(Result::query()->count())->toBe(2);
});

it('refuses what it cannot watch, or make', function (array $fields, string $says) {
    is_dir($this->home.'/shelf/in') || mkdir($this->home.'/shelf/in');
    $this->post('/standing', $fields + ['title' => 'T', 'shelf' => 'Videos', 'folder' => 'in', 'goes' => 'by:put-away'])
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, $says));
    expect(WatchedFolder::query()->count())->toBe(0);
    $this->get('/standing')->assertOk();
})->with([
    [['title' => ' '], 'needs a title'], [['goes' => ''], 'Choose a destination'], [['goes' => 'by:nothing'], 'Choose a destination'],
    [['shelf' => 'Elsewhere'], 'no longer open'], [['folder' => '../..'], 'open downwards'], [['folder' => 'nowhere'], 'no longer on'],
    [['name' => '{colour}'], 'There is no field'],
]);

it('does not look through folders again in which nothing has changed', function () {
    $standing = standing($this);
    for ($number = 0; $number < 30; $number++) {
        file_put_contents($this->home."/shelf/in/$number.wav", 'x');
    }
    touch($this->home.'/shelf/in', time() - 10);
    $folder = app(FolderContents::class);
    expect($folder->files($standing))->toHaveCount(30);
    // The folder keeps its time: what was added meanwhile is not seen, for nobody looked.
    $time = (int) filemtime($this->home.'/shelf/in');
    file_put_contents($this->home.'/shelf/in/new.wav', 'x');
    touch($this->home.'/shelf/in', $time);
    expect($folder->files($standing))->toHaveCount(30);
    file_put_contents($this->home.'/shelf/in/newer.wav', 'x');
    expect($folder->files($standing))->toHaveCount(32);
    // Called otherwise in the very second in which somebody looked: it is found under its new name ever after.
    rename($this->home.'/shelf/in/newer.wav', $this->home.'/shelf/in/newest.wav');
    touch($this->home.'/shelf/in', (int) filemtime($this->home.'/shelf/in'));
    expect(array_map(fn (WatchedFile $file): string => $file->path, $folder->files($standing)))->toContain('newest.wav')
        ->not->toContain('newer.wav');
});

it('takes a disc that lands as all of its titles, and a folder of one once all of it is there', function () {
    standing($this, ['place' => '', 'name' => '{stem}']);
    $in = $this->home.'/shelf/in';
    file_put_contents("$in/Choir.iso", TestCase::discImage());
    file_put_contents("$in/Day.cue", "FILE \"Day.bin\" BINARY\nTRACK 01 AUDIO\nINDEX 01 00:00:00\n");
    $image = substr(TestCase::wave(44_100, 44_100), 44);
    file_put_contents("$in/Day.bin", substr($image, 0, 4704));
    mkdir("$in/VIDEO_TS");
    (new VideoDiscWriter('OLD', [[4, 0x1A0, 2, 'en', 1]]))->title([new DiscCellParts(array_fill(0, 10, "\0\0\1\xB3still"), [array_map(
        fn (int $index): array => [str_repeat(pack('n', $index), 3840), 3600 * $index], range(0, 9))])])->folder($in);
    $last = collect(glob("$in/VIDEO_TS/*.VOB"))->last();
    $whole = (string) file_get_contents($last);
    file_put_contents($last, substr($whole, 0, 4096));
    tend($this, 0);
    // The files by which they are known are whole; what belongs to them still comes.
    file_put_contents("$in/Day.bin", $image);
    file_put_contents($last, $whole);
    tend($this, 4);
    expect(array_intersect_key(states(), ['Day.cue' => 1, 'VIDEO_TS/VIDEO_TS.IFO' => 1]))->toBe(['Day.cue' => 'arriving',
        'VIDEO_TS/VIDEO_TS.IFO' => 'arriving'])
        ->and(states()['Day.bin'])->toBe('left')->and(states()[substr($last, strlen("$in/"))])->toBe('left');
    for ($round = 0; $round < 4; $round++) {
        tend($this);
    }
    expect(array_filter(states(), fn (string $state): bool => $state !== 'left'))
        ->toBe(['Choir.iso' => 'ordered', 'Day.cue' => 'ordered', 'VIDEO_TS/VIDEO_TS.IFO' => 'ordered'])
        ->and(Source::query()->orderBy('name')->pluck('name')->all())->toBe(['Choir, title 1.iso', 'Choir, title 2.iso', 'Day.cue',
            'in, title 1.IFO'])
        ->and(Result::query()->orderBy('name')->get()->map(fn (Result $one): array => [$one->name, $one->state, $one->samples])->all())
        ->toBe([
            ['Choir, title 1.flac', ResultState::Done, 96_000], ['Choir, title 2.flac', ResultState::Done, 48_000],
            ['Day.flac', ResultState::Done, 44_100], ['in, title 1.flac', ResultState::Done, 19_200]]);
    tend($this);
    expect(Result::query()->count())->toBe(4);
});

it('makes of an album with a sheet what is there once, whichever comes first', function () {
    standing($this, ['place' => '', 'name' => '{stem}']);
    $in = $this->home.'/shelf/in';
    file_put_contents("$in/Day.wav", TestCase::wave(30_000, 44_100));
    file_put_contents("$in/1.wav", TestCase::wave(30_001, 44_100));
    file_put_contents("$in/2.wav", TestCase::wave(30_002, 44_100));
    tend($this, 0);
    expect(array_unique(array_values(states())))->toBe(['arriving']);
    file_put_contents("$in/Day.cue", "FILE \"Day.wav\" WAVE\nTRACK 01 AUDIO\nINDEX 01 00:00:00\n");
    file_put_contents("$in/Each.cue",
        "FILE \"1.wav\" WAVE\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nFILE \"2.wav\" WAVE\nTRACK 02 AUDIO\nINDEX 01 00:00:00\n");
    foreach ([1, 2, 3, 4] as $ignored) {
        tend($this);
    }
    expect(states())->toBe(['1.wav' => 'ordered', '2.wav' => 'ordered', 'Day.cue' => 'ordered', 'Day.wav' => 'left', 'Each.cue' => 'left'])
        ->and(Result::query()->orderBy('name')->pluck('name')->all())->toBe(['1.flac', '2.flac', 'Day.flac'])
        ->and(Arrival::query()->where('path', 'Day.wav')->value('says'))->toBe('It belongs to Day.cue, which stands for it.');
});
