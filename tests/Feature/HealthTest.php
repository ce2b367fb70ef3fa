<?php

declare(strict_types=1);

use App\Processes\BoundedLog;
use App\Upkeep\Health;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** A job that always fails. */
final class FailingJob implements ShouldQueue
{
    public function handle(): void
    {
        throw new RuntimeException('The gate is stuck.');
    }
}

it('tells of database, workers, keeper and room, to programs and to people', function () {
    $this->getJson('/up')->assertStatus(503)->assertJsonPath('well', false)->assertJsonPath('parts.database', 'well');
    file_put_contents($this->home.'/processes.json', json_encode(['web' => getmypid(), 'maker 1' => getmypid(), 'reader' => getmypid()]));
    touch($this->home.'/'.Health::KEEPER);
    $this->getJson('/up')->assertOk()->assertExactJson(['well' => true, 'failed_jobs' => 0,
        'parts' => ['database' => 'well', 'workers' => 'well', 'keeper' => 'well', 'room' => 'well']]);
    $this->get('/up', ['Accept' => 'text/html'])->assertOk()->assertSee('None in the last 30 days');

    file_put_contents($this->home.'/processes.json', json_encode(['web' => getmypid(), 'reader' => TestCase::goneProcess()]));
    $this->getJson('/up')->assertStatus(503)->assertJsonPath('parts.workers', fn (string $says): bool => str_contains($says,
        'Not running: reader'));
    touch($this->home.'/'.Health::KEEPER, time() - 120);
    $this->get('/up', ['Accept' => 'text/html'])->assertStatus(503)->assertSee('The keeper has not looked around');
});

it('keeps jobs that fail, and shows them', function () {
    config(['queue.default' => 'database']);
    dispatch(new FailingJob);
    Artisan::call('queue:work', ['--once' => true, '--tries' => 1, '--queue' => 'making']);
    expect(DB::table('failed_jobs')->count())->toBe(1);
    $this->get('/up', ['Accept' => 'text/html'])->assertSee('RuntimeException: The gate is stuck.')->assertDontSee('Stack trace');
});

it('keeps of a log that grows too long its end', function () {
    foreach (range(1, 30) as $number) {
        BoundedLog::add('source-1.log', str_repeat((string) ($number % 10), 100_000)." end of $number");
    }
    $log = (string) file_get_contents($this->home.'/logs/source-1.log');
    expect(strlen($log))->toBeLessThan(1_300_000)->and($log)->toEndWith("end of 30\n")->and(glob($this->home.'/logs/*.new'))->toBe([]);
});
