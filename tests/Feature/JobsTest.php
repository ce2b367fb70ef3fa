<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Processes\AskedChild;
use App\Results\Jobs\DrawResult;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Jobs\AnalyzeTrack;
use App\Sources\Jobs\CopyFolderIn;
use App\Sources\Jobs\FetchCover;
use App\Sources\Jobs\FindBorders;
use App\Sources\Jobs\ReadSource;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Models\Upload;
use App\Sources\Queries\PendingWork;
use App\Sources\Values\SourceState;
use App\Upkeep\Recover;
use App\Work\Claim;
use App\Work\Claims;
use App\Work\NextRow;
use App\Work\WorkKind;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Container\Outputs;
use Tests\TestCase;

/** A tone as MP3: cut and kept, its packets must be looked at first. */
function coded(): string
{
    $path = sys_get_temp_dir().'/octavox-coded-'.getmypid();
    is_file("$path.mp3") || file_put_contents("$path.wav", TestCase::wave(96_000))
        && exec(sprintf('%s make %s --into %s --format mp3 --json',
            escapeshellarg(dirname(__DIR__, 2).'/octavox'), escapeshellarg("$path.wav"), escapeshellarg(dirname($path))));

    return (string) file_get_contents("$path.mp3");
}

/** @return list<int> numbers of so many more rows that are the same source under other names */
function copiesOf(Source $source, int $count): array
{
    return array_map(function (int $number) use ($source): int {
        $extension = pathinfo($source->name, PATHINFO_EXTENSION);
        $copy = $source->replicate()->fill(['name' => "take $number.$extension", 'path' => "$source->path.$number"]);
        $copy->save();
        $track = $source->tracks[0]->replicate();
        $track->source_id = $copy->id;
        $track->save();

        return $copy->id;
    }, range(1, $count));
}

it('says in the row what befell a job, and leaves nothing waiting', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    $trouble = new RuntimeException('The worker ran out of memory.');

    // What a worker leaves as being made without holding it was interrupted: nothing of it stays behind.
    $result->update(['state' => ResultState::Making, 'token' => 'gone']);
    mkdir(dirname($result->plannedAs()->path()), recursive: true);
    file_put_contents(dirname($result->plannedAs()->path()).'/.octavox-gone.part', 'half');
    app(Recover::class)->run();
    expect($result->refresh()->state)->toBe(ResultState::Waiting)
        ->and(is_file(dirname($result->plannedAs()->path()).'/.octavox-gone.part'))->toBeFalse();
    $result->update(['state' => ResultState::Done]);

    // Interrupted too often, whoever was at it.
    $interrupted = fn (WorkKind $kind, int $row) => DB::table('claims')->insert(['kind' => $kind->value, 'row' => $row, 'worker' => null,
        'attempts' => 3, 'began_at' => time(), 'signed_at' => time()]);
    $source->update(['state' => SourceState::Reading]);
    $interrupted(WorkKind::Reading, $source->id);
    app()->call([new ReadSource, 'handle']);
    expect($source->refresh()->state)->toBe(SourceState::Unreadable)->and($source->error_says)->toContain('bring it in again');

    Source::query()->update(['state' => SourceState::Ready]);
    Track::query()->update(['analysis' => null]);
    $interrupted(WorkKind::Analysis, $source->tracks[0]->id);
    app()->call([new AnalyzeTrack, 'handle']);
    expect($source->fresh()->tracks[0]->analysis_error)->toContain('is not begun again by itself')
        ->and($source->fresh()->tracks[0]->isBeingAnalyzed())->toBeFalse();

    PacketBordersRow::query()->create(['source_id' => $source->id, 'query' => '1:0:5']);
    $interrupted(WorkKind::Borders, $source->id);
    app()->call([new FindBorders, 'handle']);
    expect(PacketBordersRow::query()->sole()->error)->toContain('a mistake of its own');

    // A mistake of ours is told, and the row is let go.
    $folder = CopiedFolder::query()->create(['shelf' => 'Nowhere', 'folder' => '']);
    $told = null;
    app(NextRow::class)->work(WorkKind::Copying, app(PendingWork::class)->copies(), 'copied_folders.id', 1, fn () => throw $trouble,
        function (int $row, ?Throwable $why) use (&$told): void {
            $told = [$row, $why];
        });
    expect($told)->toBe([$folder->id, $trouble]);
    $interrupted(WorkKind::Copying, $folder->id);
    app()->call([new CopyFolderIn, 'handle']);
    expect($folder->refresh())->state->toBe(CopiedFolder::FAILED)->says->toContain('a mistake of its own')
        ->and(DB::table('claims')->count())->toBe(0);

    (new DrawResult($result->id))->failed($trouble);
    expect(filesize($result->waveformPath()))->toBe(0);
    $this->get("/results/$result->id/waveform/after")->assertNotFound();
});

it('does nothing where what a job was for is gone', function () {
    foreach ([new ReadSource, new AnalyzeTrack, new FindBorders, new CopyFolderIn, new DrawResult(7), new MakeResult,
        new FetchCover(7)] as $job) {
        app()->call([$job, 'handle']);
    }
    (new DrawResult(7))->failed(null);
    (new FetchCover(7))->failed(null);
    expect(Source::query()->count() + Result::query()->count())->toBe(0);
});

it('takes up every row by itself: one that cannot be stops no other', function () {
    Queue::fake();
    foreach (['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as $id) {
        $upload = Upload::query()->create(['id' => $id, 'name' => 'a.wav', 'folder' => '', 'bytes' => 44, 'received' => 44,
            'expires_at' => now()->addDay()]);
        file_put_contents($upload->path(), substr(TestCase::wave(10), 0, 44));
    }
    // Where the first one's folder must be something else lies.
    file_put_contents($this->home.'/sources/00000000-0000-4000-8000-000000000001', 'in the way');
    app(Recover::class)->run();
    expect(Upload::query()->whereNotNull('source_id')->pluck('id')->all())->toBe(['00000000-0000-4000-8000-000000000002'])
        ->and(Source::query()->count())->toBe(1);
});

it('shows what the process of a failed result said of its own troubles, and nothing of others', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    $this->get("/results/$result->id/log")->assertNotFound();
    file_put_contents($result->logPath(), "PHP Fatal error: Allowed memory size <b>exhausted</b>\n");
    $result->update(['state' => ResultState::Failed, 'error_code' => 'child-died', 'error_says' => 'Its process ended.']);
    $this->get('/results')->assertSee('What its process said');
    $answer = $this->get("/results/$result->id/log")->assertOk()->assertHeader('Content-Type', 'text/plain; charset=utf-8');
    expect($answer->getContent())->toContain('<b>exhausted</b>');
    // Made after all: nobody needs it any more.
    $result->update(['state' => ResultState::Waiting, 'error_code' => null, 'error_says' => null]);
    app()->call([new MakeResult, 'handle']);
    expect($result->refresh()->state)->toBe(ResultState::Done)->and(is_file($result->logPath()))->toBeFalse();
});

it('says that the packets around a cut are looked for, and plans once they are found', function () {
    $source = $this->bring('a.mp3', coded());
    Queue::fake();
    $address = "/order?sources=$source->id&format=mp3&pieces=$source->id:0.5-1.5";
    $this->sheet($address)->assertOk()->assertSee('hx-trigger="load delay:900ms"', false)->assertSee('Make 0 files');
    $this->sheet($address)->assertOk();
    // Asked twice, looked for once.
    Queue::assertPushed(FindBorders::class, 1);
    $this->order(['sources' => $source->id, 'format' => 'mp3', 'pieces' => "$source->id:0.5-1.5"]);
    expect(Result::query()->count())->toBe(0);
    app()->call([new FindBorders, 'handle']);
    $this->sheet($address)->assertOk()->assertDontSee('hx-trigger="load delay:900ms"', false)->assertSee('Make 1 file')
        ->assertSee('copied untouched');
    // The same cut in another order is known already; another one is looked for.
    $this->sheet("/order?sources=$source->id&format=mka&pieces=$source->id:0.5-1.5")->assertOk()->assertSee('Make 1 file');
    $this->sheet("/order?sources=$source->id&format=mp3&pieces=$source->id:0.6-1.5")->assertOk()->assertSee('Make 0 files');
    Queue::assertPushed(FindBorders::class, 2);
    DB::table('claims')->insert(['kind' => 'borders', 'row' => $source->id, 'worker' => null, 'attempts' => 2, 'began_at' => 0, 'signed_at' => 0]);
    app()->call([new FindBorders, 'handle']);
    $this->sheet("/order?sources=$source->id&format=mp3&pieces=$source->id:0.6-1.5")->assertOk()->assertSee('a mistake of its own')
        ->assertDontSee('hx-trigger="load delay:900ms"', false);
});

it('plans outside of any transaction and asks the database little, however many lines there are', function () {
    $source = $this->bring('a.mp3', coded());
    $ids = copiesOf($source, 60);
    Queue::fake();
    $queries = $within = 0;
    DB::listen(function () use (&$queries, &$within): void {
        $queries++;
        $within += DB::transactionLevel() > 1 ? 1 : 0;
    });
    $this->sheet('/order?sources='.implode(',', $ids).'&format=flac')->assertOk()->assertSee('Make 60 files');
    expect($queries)->toBeLessThan(25);
    $within = $queries = 0;
    $this->get('/orders/1')->assertOk();
    expect($queries)->toBeLessThan(15)->and($within)->toBe(0);
});

it('shows the sheet of four hundred sources in parts, small and soon, and makes all of them', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    $ids = [$source->id, ...copiesOf($source, 399)];
    $fields = ['sources' => implode(',', $ids), 'format' => 'mp3', 'name' => 'same'];
    $this->post('/orders', $fields)->assertRedirect('/orders/1');
    $first = (string) $this->get('/orders/1')->assertOk()->assertSee('Make 400 files')->assertSee('340 more')->getContent();
    expect(strlen($first))->toBeLessThan(300_000)->and(substr_count($first, 'data-line='))->toBe(60)->and($first)->toContain('same.mp3')
        ->toContain('same 60.mp3')->not->toContain('same 61.mp3');
    $last = (string) $this->get('/orders/1?from=360&renew=1')->assertOk()->getContent();
    // Names are given over the whole order, whichever part of it is shown.
    expect(substr_count($last, 'data-line='))->toBe(40)->and($last)->toContain('same 361.mp3')->toContain('same 400.mp3')
        ->not->toContain('data-more');
    $this->get('/orders/1?from=9000')->assertOk()->assertDontSee('data-line=', false);
    $this->get('/orders/1?from=-5')->assertOk()->assertSee('same.mp3');
    Queue::fake();
    $this->post('/orders/1/place')->assertRedirect();
    expect(Result::query()->count())->toBe(400)->and(Result::query()->distinct()->count('name'))->toBe(400);
});

it('takes lines off the sheet, and keeps everything else', function () {
    [$first, $second] = [$this->bring('a.wav', TestCase::wave(1000)), $this->bring('b.wav', TestCase::wave(1000))];
    $this->post('/orders', ['sources' => "$first->id,$second->id", 'format' => 'flac', 'layout' => 'mono',
        'pieces' => "$first->id:0-0.01;$second->id:0-0.005"]);
    $this->delete('/orders/1/lines', ['lines' => '1,999'])->assertRedirect('/orders/1');
    $order = Order::query()->sole();
    expect($order->lines->pluck('source_id')->all())->toBe([$second->id])
        ->and($order->lines[0]->changes()->sounds[0]->pieces)->toBe('0-0.005')
        ->and($order->asked()->sounds[0]->layout)->toBe('mono')->and(Source::query()->count())->toBe(2);
    $this->delete('/orders/1/lines', ['lines' => '2'])->assertRedirect('/orders/1');
    $this->get('/orders/1')->assertOk()->assertSee('The sheet is empty');
});

it('offers each kind of file that its registry has, none twice', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    $page = $this->sheet("/order?sources=$source->id&format=wav")->assertOk()->getContent();
    foreach (Outputs::all() as $format) {
        expect(substr_count((string) $page, 'value="'.$format->name().'"'))->toBeGreaterThanOrEqual(1);
    }
});

it('gives each row to one worker, those that were interrupted last', function () {
    $sources = [$this->bring('a.wav', TestCase::wave(100)), $this->bring('b.wav', TestCase::wave(200)), $this->bring('c.wav',
        TestCase::wave(300))];
    Source::query()->update(['state' => SourceState::Reading]);
    $claims = app(Claims::class);
    $take = fn (): ?Claim => $claims->take(WorkKind::Reading, app(PendingWork::class)->readings(), 'sources.id');
    $ids = array_map(fn (Source $one): int => $one->id, $sources);
    [$first, $second, $third] = [$take(), $take(), $take()];
    expect([$first?->row, $second?->row, $third?->row])->toBe($ids)->and($take())->toBeNull();
    $claims->giveBack($first, isAttempt: true);
    $claims->giveBack($third, isAttempt: false);
    expect($take())->row->toBe($ids[2])->attempts->toBe(1)->and($take())->row->toBe($ids[0])->attempts->toBe(2)->and($take())->toBeNull();
    // The same number of another kind of work is another row.
    Track::query()->update(['analysis' => null]);
    Source::query()->update(['state' => SourceState::Ready]);
    expect($claims->take(WorkKind::Analysis, app(PendingWork::class)->analyses(), 'tracks.id'))->not->toBeNull();
    $claims->end($second);
    expect($claims->unheld(WorkKind::Reading, Source::query(), 'sources.id')->pluck('id')->all())->toBe([$ids[1]]);
});

it('gives back what a worker held that is gone, and nothing else', function () {
    $gone = TestCase::goneProcess();
    $this->hold(WorkKind::Analysis, 1, getmypid());
    $this->hold(WorkKind::Analysis, 2, $gone);
    $this->hold(WorkKind::Making, 2, $gone, begunAgo: 7200);
    $this->hold(WorkKind::Reading, 3, getmypid(), secondsAgo: 100);
    // Of a process of another machine only its signs tell.
    $this->hold(WorkKind::Copying, 4, $gone);
    DB::table('claims')->where('kind', 'copying')->update(['worker' => 'elsewhere:'.$gone]);
    app(Claims::class)->releaseDead();
    expect(DB::table('claims')->orderBy('kind')->orderBy('row')->get()->map(fn (object $one): array => [$one->kind, $one->row, $one
        ->worker !== null, $one->attempts])->all())
        // That a worker ended is no attempt, unless that goes on for an hour.
        ->toBe([['analysis', 1, true, 1], ['analysis', 2, false, 0], ['copying', 4, true, 1], ['making', 2, false, 1], ['reading', 3,
            false, 0]]);
    app(Claims::class)->releaseAll();
    expect(DB::table('claims')->whereNotNull('worker')->count())->toBe(0);
});

it('makes each result once, however many jobs there are, and all however few', function (int $jobs) {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    foreach (['a', 'b', 'c'] as $name) {
        $this->order(['sources' => $source->id, 'format' => 'flac', 'name' => $name]);
    }
    for ($job = 0; $job < $jobs; $job++) {
        app()->call([new MakeResult, 'handle']);
    }
    $done = min(3, $jobs);
    expect(Result::query()->where('state', ResultState::Done)->count())->toBe($done)->and(DB::table('claims')->count())->toBe(0)
        ->and(count(glob($this->home.'/results/*/*.flac') ?: []))->toBe($done);
    Queue::fake();
    app(Recover::class)->run();
    Queue::assertPushed(MakeResult::class, 3 - $done);
})->with([1, 3, 5]);

it('ends an analysis whose source is taken off the list, and goes on when it is back', function () {
    $source = $this->bring('long.wav', Tests\TestCase::wave(9600));
    $source->tracks()->update(['analysis' => null]);
    Source::query()->whereKey($source->id)->update(['removed_at' => now()]);
    $asked = 0;
    $child = new AskedChild('analysis', 60.0);
    expect(function () use ($child, &$asked): void {
        // Hours of sound that take no room on the drive.
        $handle = fopen($this->home.'/long.raw', 'c');
        ftruncate($handle, 60_000_000_000);
        $child->answer(['path' => $this->home.'/long.raw', 'stated' => 'pcm16:48000:2', 'track' => 1, 'waveform' => $this->home.'/w'],
            'x', 'x.log', function () use (&$asked): bool {
                $asked++;

                return false;
            });
    })->toThrow(Octavox\Core\Parallel\Abandoned::class);
    expect($asked)->toBe(1);
    AnalyzeTrack::dispatch();
    expect($source->tracks()->sole()->analysis)->toBeNull();
    Source::everyOne()->whereKey($source->id)->update(['removed_at' => null]);
    AnalyzeTrack::dispatch();
    expect($source->tracks()->sole()->analysis)->not->toBeNull();
});

it('writes no stack of what is only begun again', function () {
    $handler = app(Illuminate\Contracts\Debug\ExceptionHandler::class);
    expect($handler->shouldReport(Octavox\Core\Make\Interrupted::now('a.wav')))->toBeFalse()
        ->and($handler->shouldReport(new Illuminate\Queue\MaxAttemptsExceededException('x')))->toBeFalse()
        ->and($handler->shouldReport(new RuntimeException('x')))->toBeTrue();
    // A reading that was interrupted once is begun again; the log stays empty.
    $source = $this->bring('a.wav', TestCase::wave(4800));
    Illuminate\Support\Facades\Log::shouldReceive('error')->never();
    Source::query()->whereKey($source->id)->update(['state' => 'reading']);
    DB::table('claims')->insert(['kind' => 'reading', 'row' => $source->id, 'worker' => null, 'attempts' => 3, 'began_at' => 0, 'signed_at' => 0]);
    app()->call([new ReadSource, 'handle']);
    expect($source->refresh()->error_code)->toBe('interrupted')->and($source->error_says)->toContain('bring it in again');
});
