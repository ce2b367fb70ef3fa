<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use App\Upkeep\Recover;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/**
 * The database of the release of 28 November 2026 with what it had in its folders: two sources, a finished result, five that wait, one
 * that failed.
 */
function formerRelease(string $home): void
{
    $sql = str_replace('@home@', $home, (string) file_get_contents(dirname(__DIR__).'/fixtures/former-release.sql'));
    preg_match_all('#'.preg_quote($home, '#').'/sources/[0-9a-f-]+/[a-z]+\.(wav|mp4)#', $sql, $paths);
    foreach (array_unique($paths[0]) as $path) {
        is_dir(dirname($path)) || mkdir(dirname($path));
        file_put_contents($path, str_ends_with($path, 'wav') ? TestCase::wave()
            : file_get_contents(dirname(__DIR__, 2).'/core/tests/fixtures/recorder.mp4'));
    }
    mkdir($home.'/results/0001');
    file_put_contents($home.'/results/0001/clip.mp3', str_repeat("\xFF\xFB\x90\x00", 1488));
    is_dir($home.'/waveforms') || mkdir($home.'/waveforms');
    copy(dirname(__DIR__).'/fixtures/former-release.waveform', $home.'/waveforms/1-1.waveform');
    touch($home.'/former.sqlite');
    config(['database.connections.former' => ['database' => $home.'/former.sqlite'] + config('database.connections.sqlite')]);
    DB::connection('former')->unprepared($sql);
    DB::connection('former')->table('jobs')->insert(['queue' => 'making', 'payload' => '{"displayName":"App\\\\Jobs\\\\MakeResult"}',
        'attempts' => 0, 'available_at' => 1, 'created_at' => 1]);
    DB::setDefaultConnection('former');
    Artisan::call('migrate', ['--force' => true]);
}

afterEach(fn () => DB::setDefaultConnection('sqlite'));

it('takes the database of the former release over: what was made is shown, what waited is made', function () {
    formerRelease($this->home);
    expect(Result::query()->orderBy('id')->pluck('state', 'id')->map(fn (ResultState $state): string => $state->value)->all())
        ->toBe([1 => 'done', 2 => 'waiting', 3 => 'waiting', 4 => 'waiting', 5 => 'waiting', 6 => 'waiting', 7 => 'waiting', 8 => 'failed'])
        ->and(DB::table('jobs')->count())->toBe(0);
    $this->get('/results')->assertOk()->assertSee('clip.mp3')->assertSee('There was no room for it')->assertSee('peak at -3.0 dBFS');
    $this->get('/sources/1')->assertOk()->assertSee('16-bit PCM')->assertSee('-11.2');
    $this->get('/sources/2')->assertOk()->assertSee('it is mono that takes the room of stereo');
    $this->get('/sources/1/tracks/1/waveform?from=0&until=9600&columns=100')->assertOk()->assertHeader('X-Samples', '9600');

    app(Recover::class)->atStart();
    $results = Result::query()->orderBy('id')->get();
    expect($results->map(fn (Result $one): array => [$one->state->value, $one->error_says])->all())->toBe([
        ['done', null], ['done', null], ['done', null], ['done', null], ['done', null], ['done', null], ['done', null],
        ['failed', 'There was no room for it; free some space and try again.'],
    ]);
    $waited = $results->keyBy('id');
    // What the plan of the former release foresaw is what was made.
    foreach ([2 => 4800, 3 => 9600, 4 => 9600, 5 => 9600, 6 => 99_840, 7 => 99_840] as $id => $samples) {
        expect([$waited[$id]->samples, $waited[$id]->receipt['samples'], filesize($waited[$id]->path)])
            ->toBe([$samples, $samples, $waited[$id]->receipt['bytes']]);
    }
    expect(hash_file('xxh128', $waited[5]->path))->toBe(hash('xxh128', TestCase::wave()));
    $this->post('/results/8/retry')->assertOk();
    expect(Result::query()->findOrFail(8)->state)->toBe(ResultState::Done);
    $this->get('/results/8/receipt')->assertOk()->assertSee('Verified');
});

it('goes back, and forth again, without a loss', function () {
    formerRelease($this->home);
    $before = DB::table('results')->orderBy('id')->get()->toJson();
    Artisan::call('migrate:rollback', ['--force' => true, '--step' => 3]);
    expect(DB::table('results')->count())->toBe(8)->and(DB::getSchemaBuilder()->hasTable('claims'))->toBeFalse();
    Artisan::call('migrate', ['--force' => true]);
    expect(DB::table('results')->orderBy('id')->get()->toJson())->toBe($before)
        ->and(is_file($this->home.'/waveforms/1-1.waveform'))->toBeTrue();
});

it('has the tables of a home that was carried over in a new one as well', function () {
    $tables = fn (): array => array_map(fn (array $table): array => [array_column(DB::getSchemaBuilder()->getColumns($table['name']),
        'type_name', 'name'),
        array_column(DB::getSchemaBuilder()->getIndexes($table['name']), 'columns', 'name')],
        array_column(DB::getSchemaBuilder()->getTables(), null, 'name'));
    $sorted = function (mixed $of) use (&$sorted): mixed {
        is_array($of) && ksort($of);

        return is_array($of) ? array_map($sorted, $of) : $of;
    };
    $new = $tables();
    formerRelease($this->home);
    expect($sorted($tables()))->toBe($sorted($new));
});

it('refuses a home that is older than what it can carry over, in a sentence', function () {
    touch($this->home.'/older.sqlite');
    config(['database.connections.former' => ['database' => $this->home.'/older.sqlite'] + config('database.connections.sqlite')]);
    DB::connection('former')->unprepared('create table sources (id integer); create table uploads (id integer)');
    DB::setDefaultConnection('former');
    expect(fn () => Artisan::call('migrate', ['--force' => true]))->toThrow(RuntimeException::class,
        'start it once with the release of that day');
});

it('fails a result whose plan it does not understand, in a sentence, and makes the others', function (callable $break, string $says) {
    formerRelease($this->home);
    $plan = json_decode((string) DB::table('results')->where('id', 2)->value('plan'), true);
    DB::table('results')->where('id', 2)->update(['plan' => json_encode($break($plan))]);
    app(Recover::class)->atStart();
    $broken = Result::query()->findOrFail(2);
    expect($broken->state)->toBe(ResultState::Failed)->and($broken->error_code)->toBe('plan-unreadable')
        ->and($broken->error_says)->toContain($says)
        ->and(Result::query()->where('state', ResultState::Done)->count())->toBe(6);
    $this->get('/results')->assertOk()->assertSee($says);
    $this->get('/results/2/media')->assertNotFound();
    $this->post('/results/2/retry')->assertOk()->assertSee($says);
})->with([
    'a field of the former release is missing' => [fn (array $plan): array => array_diff_key($plan, ['codec' => 1]), 'codec'],
    'a future version' => [fn (array $plan): array => ['version' => 99] + $plan, 'version 99'],
    'a field of this release is missing' => [fn (array $plan): array => ['version' => 2, 'source' => ['kind' => 'file']],
        'path is missing'],
    'no plan at all' => [fn (array $plan): array => [], 'plan'],
]);

it('shows what was made even where nobody understands its plan or its receipt any more', function () {
    formerRelease($this->home);
    DB::table('results')->where('id', 1)->update(['plan' => '{"version":99}', 'receipt' => '{"version":99}']);
    DB::table('tracks')->where('id', 1)->update(['analysis' => '{"version":99}']);
    DB::table('sources')->where('id', 2)->update(['reading' => '{"version":99}']);
    $this->get('/results')->assertOk()->assertSee('clip.mp3');
    $this->get('/results/1/file')->assertDownload('clip.mp3');
    $this->get('/sources')->assertOk()->assertSee('recorder.mp4');
    $this->get('/sources/1')->assertOk();
    $this->sheet('/order?sources=1,2&format=mp3')->assertOk();
    expect(Order::query()->count())->toBe(8)->and(Source::query()->count())->toBe(2);
    // What is not understood is measured again.
    app(Recover::class)->atStart();
    expect(Source::query()->findOrFail(1)->tracks[0]->measured()?->samples)->toBe(9600);
});

it('leads old addresses to the new ones', function (string $old, string $new) {
    $this->get($old)->assertMovedPermanently()->assertRedirect($new);
})->with([
    ['/deliveries', '/results'], ['/deliveries/7/file', '/results/7/file'], ['/deliveries/7/ribbon/after', '/results/7/waveform/after'],
    ['/sources/3/tracks/2/ribbon', '/sources/3/tracks/2/waveform'],
]);
