<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Actions\ClaimResult;
use App\Results\Actions\EndResult;
use App\Results\Actions\HoldWork;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Queries\WorkAtHand;
use App\Results\Values\ResultState;
use App\Settings\Queries\Settings;
use App\Sources\Models\Upload;
use App\Upkeep\Recover;
use App\Work\Claims;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Route;
use Octavox\Core\Make\NoSpace;
use Tests\TestCase;

/** An order of so many results that wait, and nobody who makes them. */
function waitingOrder(mixed $test, string ...$names): Order
{
    Queue::fake([MakeResult::class]);
    $order = $test->draft(['format' => 'flac'], ...$names);
    $test->post("/orders/$order->id/place")->assertRedirect();

    return $order->refresh();
}

/** What a worker does that finds a job. */
function workOnce(): ?Result
{
    $before = Result::query()->where('state', ResultState::Waiting)->pluck('id')->all();
    app()->call([new MakeResult, 'handle']);

    return Result::query()->whereKey($before)->where('state', '!=', ResultState::Waiting)->first();
}

/** @return list<string> */
function workAll(): array
{
    for ($names = []; ($result = workOnce()) !== null;) {
        $names[] = $result->source_name;
    }

    return $names;
}

it('makes what comes first: by priority of the order, by turn, then as it was ordered', function () {
    $one = waitingOrder($this, 'a.wav', 'b.wav', 'c.wav');
    $two = waitingOrder($this, 'd.wav', 'e.wav');
    $this->post("/orders/$two->id/work", ['do' => 'first'])->assertRedirect();
    $c = Result::query()->where('source_name', 'c.wav')->sole();
    $this->post("/results/$c->id/work", ['do' => 'first'])->assertOk();
    $d = Result::query()->where('source_name', 'd.wav')->sole();
    $this->post("/results/$d->id/work", ['do' => 'last'])->assertOk();
    expect(workAll())->toBe(['e.wav', 'd.wav', 'c.wav', 'a.wav', 'b.wav'])
        ->and(Result::query()->where('state', ResultState::Done)->count())->toBe(5);
    $this->post("/orders/$one->id/work", ['do' => 'something'])->assertNotFound();
});

it('pauses one, an order, or everything, and goes on', function () {
    $order = waitingOrder($this, 'a.wav', 'b.wav');
    $other = waitingOrder($this, 'c.wav');
    [$a] = Result::ofOrder($order)->get()->all();
    $this->post("/results/$a->id/work", ['do' => 'hold'])->assertOk()->assertSee('paused')->assertSee('Go on');
    $this->post("/orders/$other->id/work", ['do' => 'hold'])->assertRedirect();
    $this->get('/results')->assertOk()->assertSee('paused')->assertSee('Go on with the order');
    expect(workAll())->toBe(['b.wav']);
    $this->post('/work', ['held' => 1])->assertRedirect();
    $this->post("/results/$a->id/work", ['do' => 'go-on'])->assertOk()->assertDontSee('Go on');
    $c = Result::ofOrder($other)->sole();
    $this->post("/results/$c->id/work", ['do' => 'go-on-order'])->assertOk()->assertDontSee('Go on with the order');
    expect(workAll())->toBe([])->and(app(WorkAtHand::class)->now()->says())->toContain('2 paused')
        ->and(app(WorkAtHand::class)->now()->isMoving())->toBeFalse();
    $this->post('/work', ['held' => 0]);
    expect(workAll())->toBe(['a.wav', 'c.wav']);
});

it('stops what is being made when it is paused, keeps nothing of it, and makes it whole when it goes on', function () {
    $order = waitingOrder($this, 'a.wav');
    $result = Result::ofOrder($order)->sole();
    // A worker has taken it; its child is told to end as soon as the worker looks.
    $taken = app(ClaimResult::class)->claim('token');
    expect($taken?->row)->toBe($result->id)->and(app(ClaimResult::class)->claim('other'))->toBeNull();
    app(HoldWork::class)->result($result, true);
    app(EndResult::class)->stopped($result->refresh());
    app(Claims::class)->end($taken);
    expect($result->refresh()->state)->toBe(ResultState::Waiting)->and($result->attempts)->toBe(0)->and(workAll())->toBe([]);
    app(HoldWork::class)->result($result, false);
    expect(workAll())->toBe(['a.wav'])->and($result->refresh()->isThere())->toBeTrue();
});

it('leaves what is paused in the moment in which a worker takes it', function () {
    $order = waitingOrder($this, 'a.wav', 'b.wav');
    [$a] = Result::ofOrder($order)->get()->all();
    // The statement that takes a row is followed by one that somebody else sends.
    DB::listen(function (QueryExecuted $query) use ($a): void {
        str_starts_with($query->sql, 'insert into claims') && DB::getPdo()->exec("update results set held = 1 where id = $a->id");
    });
    $taken = app(ClaimResult::class)->claim('token');
    expect($a->refresh()->state)->toBe(ResultState::Waiting)->and($taken?->row)->not->toBe($a->id)->not->toBeNull();
});

it('goes on, asks, or cancels the rest when one fails, as the order says', function (string $wish, array $states, bool $held) {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav', 'c.wav');
    $this->patch("/orders/$order->id", ['on_failure' => $wish])->assertOk();
    $this->patch("/orders/$order->id", ['on_failure' => 'explode'])->assertOk();
    Queue::fake([MakeResult::class]);
    $this->post("/orders/$order->id/place");
    unlink((string) Result::query()->orderBy('id')->firstOrFail()->source?->path);
    workAll();
    expect(Result::query()->orderBy('id')->pluck('state')->map(fn (ResultState $state): string => $state->value)->all())->toBe($states)
        ->and($order->refresh()->held)->toBe($held);
    $this->get('/results')->assertOk();
    if ($held) {
        $this->get('/results')->assertSee('One failed, so the rest waits for you');
        $this->post("/orders/$order->id/work", ['do' => 'go-on']);
        expect(workAll())->toBe(['b.wav', 'c.wav']);
    }
})->with([
    ['go-on', ['failed', 'done', 'done'], false], ['ask', ['failed', 'waiting', 'waiting'], true],
    ['stop', ['failed', 'cancelled', 'cancelled'], false],
]);

it('waits for room instead of failing, says so, and goes on by itself once there is room', function () {
    $order = waitingOrder($this, 'a.wav', 'b.wav');
    [$a, $b] = Result::ofOrder($order)->get()->all();
    $a->update(['predicted_bytes' => PHP_INT_MAX >> 2]);
    app(ClaimResult::class)->claim('token');
    app(EndResult::class)->failed($a->refresh(), NoSpace::before('/results', PHP_INT_MAX >> 2, 5.0));
    DB::table('claims')->delete();
    expect($a->refresh()->state)->toBe(ResultState::Waiting)->and(workAll())->toBe(['b.wav']);
    $this->get('/results')->assertSee('waiting for room on its drive')->assertSee('it goes on by itself');
    expect(app(WorkAtHand::class)->now()->says())->toContain('1 waiting for room');
    app(Recover::class)->run();
    expect($a->refresh()->waits_for)->toBe('room');
    $a->update(['predicted_bytes' => 5000, 'updated_at' => now()->subMinute()]);
    app(Recover::class)->run();
    expect($a->refresh()->waits_for)->toBeNull()->and(workAll())->toBe(['a.wav'])->and($b->refresh()->state)->toBe(ResultState::Done);
});

it('has nobody look for work that is paused, and somebody for all that is not', function () {
    $order = waitingOrder($this, 'a.wav', 'b.wav');
    DB::table('results')->update(['updated_at' => now()->subMinute()]);
    $pushed = fn (): int => Queue::pushed(MakeResult::class)->count();
    $before = $pushed();
    app(HoldWork::class)->order($order, true);
    DB::table('results')->update(['updated_at' => now()->subMinute()]);
    app(Recover::class)->run();
    expect($pushed())->toBe($before);
    app(HoldWork::class)->order($order, false);
    expect($pushed())->toBe($before);
    // As many jobs as rows wait: those there were had come to nothing.
    Queue::fake([MakeResult::class]);
    app(HoldWork::class)->order($order, false);
    expect($pushed())->toBe(2);
});

it('says on every page how far the work is, and for a while what came of it', function () {
    $this->get('/work')->assertOk()->assertSee('data-moving="0"', false)->assertDontSee('pause everything');
    $order = waitingOrder($this, 'a.wav', 'b.wav');
    $order->update(['title' => 'Steam day']);
    $this->get('/work')->assertSee('data-moving="1"', false)->assertSee('2 waiting')->assertSee('pause everything')
        ->assertSee("data-orders=\"$order->id\"", false);
    workAll();
    $this->get('/work')->assertSee('data-orders=""', false)->assertSee('Steam day: 2 of 2 done');
    DB::table('results')->update(['ended_at' => now()->subHour()]);
    $this->get('/work')->assertDontSee('Steam day');
    $this->get('/sources')->assertSee('id="work"', false);
    app(App\Settings\Actions\KeepSetting::class)->set(Settings::RING, true);
    $this->get('/work')->assertSee('data-rings="1"', false);
    $this->get('/mark/40.svg')->assertOk()->assertHeader('Content-Type', 'image/svg+xml')->assertSee('17.6', false);
    $this->get('/mark/999999.svg')->assertOk()->assertSee('width="44"', false);
});

it('begins nothing new on a drive on which less is free than always stays free, says so on every page, and shows what can be freed',
    function () {
        $order = waitingOrder($this, 'a.wav');
        $this->get('/sources')->assertDontSee('almost full');
        $this->put('/settings', ['free_gigabytes' => '100000']);
        expect(workAll())->toBe([])->and(Result::ofOrder($order)->sole()->waits_for)->toBe('room');
        foreach (['/sources', '/results', '/recipes', '/settings', '/bin', '/outside'] as $page) {
            $this->get($page)->assertOk()->assertSee('The drive of Octavox is almost full')->assertSee('See what can be freed');
        }
        $this->call('POST', '/uploads', server: ['HTTP_TUS_RESUMABLE' => '1.0.0', 'HTTP_UPLOAD_LENGTH' => '10'])->assertStatus(507);
        // What can be given up, and is.
        touch(Upload::query()->create(['name' => 'half.wav', 'folder' => '', 'bytes' => 100, 'received' => 7, 'expires_at' => now()->addDay()])
            ->path());
        is_dir($this->home.'/waveforms') || mkdir($this->home.'/waveforms');
        file_put_contents($this->home.'/waveforms/7-1.waveform', str_repeat('x', 3000));
        $this->get('/room')->assertOk()->assertSee('Unfinished uploads (1)')->assertSee('Give them up')->assertSee('Drawings of sound (');
        $this->post('/room', ['do' => 'uploads'])->assertRedirect('/room')->assertSessionHas('said', 'One unfinished upload was given up.');
        $this->post('/room', ['do' => 'drawings'])->assertRedirect('/room');
        expect(Upload::query()->whereNull('source_id')->count())->toBe(0)->and(is_file($this->home.'/waveforms/7-1.waveform'))->toBeFalse();
        $this->post('/room', ['do' => 'anything'])->assertNotFound();
        $this->put('/settings', ['free_gigabytes' => '']);
        app(Recover::class)->run();
        expect(workAll())->toBe(['a.wav']);
    });

it('answers that the drive is full, or the database busy, not that it made a mistake', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    // SQLite says "full" of itself where it may not grow.
    DB::statement('pragma max_page_count = '.DB::selectOne('pragma page_count')->page_count);
    $note = str_repeat('A long note. ', 20_000);
    $full = fn () => DB::table('settings')->insert(['name' => 'x', 'value' => json_encode($note)]);
    Route::get('/fills', $full)->middleware('web');
    Route::get('/api/v1/fills', $full);
    $this->get('/fills')->assertStatus(507)->assertSee('The drive is full');
    $this->getJson('/api/v1/fills')->assertStatus(507)->assertJsonPath('code', 'no-space');
    $this->get('/sources')->assertOk()->assertSee('a.wav');
    DB::statement('pragma max_page_count = 1073741823');
    // Somebody else writes for longer than anybody waits.
    config(['database.connections.other' => ['driver' => 'sqlite', 'database' => $this->home.'/other.sqlite', 'prefix' => '',
        'busy_timeout' => 50]]);
    $other = new PDO('sqlite:'.$this->home.'/other.sqlite');
    $other->exec('create table kept (id integer)');
    Route::post('/api/v1/writes', fn () => DB::connection('other')->table('kept')->insert(['id' => 1]) ? 'kept' : '');
    Route::get('/writes', fn () => DB::connection('other')->table('kept')->insert(['id' => 1]) ? 'kept' : '')->middleware('web');
    $other->exec('begin immediate');
    $this->postJson('/api/v1/writes')->assertStatus(503)->assertHeader('Retry-After', '10')->assertJsonPath('code', 'busy');
    $this->get('/writes')->assertStatus(503)->assertHeader('Retry-After', '10')->assertSee('busy');
    $other->exec('rollback');
    $this->postJson('/api/v1/writes')->assertOk();
});

it('shows its pages, and takes forms, where no session, no cache and no log can be written down', function () {
    // Old sessions are cleared at every request.
    config(['session.lottery' => [1, 1], 'session.driver' => 'kept', 'session.files' => $this->home.'/nowhere/sessions', 'cache.default' => 'file',
        'cache.stores.file' => ['driver' => 'kept', 'path' => '/proc/octavox'], 'logging.default' => 'kept',
        'logging.channels.daily.path' => '/proc/octavox/octavox.log']);
    app()->forgetInstance('session.store');
    Cache::forgetDriver('file');
    $page = $this->get('/settings')->assertOk();
    expect(Cache::put('a', 1, 10))->toBeFalse()->and(Cache::get('a'))->toBeNull();
    Log::error('Nowhere to go.');
    preg_match('/name="csrf-token" content="([^"]+)"/', (string) $page->getContent(), $token);
    $cookie = $page->getCookie(config('session.cookie'), false)->getValue();
    app()->instance('env', 'local');
    $this->withUnencryptedCookie(config('session.cookie'), $cookie)->put('/settings', ['free_gigabytes' => '5', '_token' => 'another'])
        ->assertStatus(419);
    $this->withUnencryptedCookie(config('session.cookie'), $cookie)->put('/settings', ['free_gigabytes' => '5', '_token' => $token[1]])
        ->assertRedirect();
});
