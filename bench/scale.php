<?php

declare(strict_types=1);

// A process of its own for the part `scale`: a home as it is after months, filled alike each time, and the processor time of each page.

use App\Presets\Queries\Presets;
use App\Settings\Actions\IssueToken;
use App\Settings\Queries\Settings;
use App\Settings\Values\AccessScope;
use App\Sources\Actions\RecordReading;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Upkeep\Recover;
use Illuminate\Contracts\Console\Kernel as Console;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine as PlanLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Reading\Reader;

[, $home, $sources, $orders] = $argv;
const RESULTS = 100;
foreach (['OCTAVOX_HOME' => $home, 'OCTAVOX_PORT' => '8000', 'APP_ENV' => 'production', 'APP_KEY' => 'base64:'.base64_encode(str_repeat('k', 32))] as $name => $value) {
    putenv("$name=$value");
    $_ENV[$name] = $value;
}
require dirname(__DIR__).'/vendor/autoload.php';
$app = require dirname(__DIR__).'/bootstrap/app.php';
$app->make(Console::class)->bootstrap();
array_map(fn (string $folder) => is_dir("$home/$folder") || mkdir("$home/$folder"), ['results', 'logs', 'sessions', 'cache', 'bells',
    'uploads', 'sources']);
touch("$home/octavox.sqlite");
$app->make(Console::class)->call('migrate', ['--force' => true]);
Queue::fake();

// One source as it was read, and what is planned of it, under as many names as are wanted.
$path = "$home/Tour.mp4";
$one = Source::query()->create(['name' => basename($path), 'path' => $path, 'origin' => 'upload', 'state' => 'reading']);
$reading = Reader::read($path);
$app->make(RecordReading::class)->readable($one, $reading, 'mark');
$source = $one->refresh()->getAttributes();
$tracks = $one->tracks->map(fn (Track $track): array => array_diff_key($track->getAttributes(), ['id' => 1]))->all();
$one->delete();
$plan = OrderPlanner::plan([new PlanLine($reading)], new OutputSpec('flac', place: "$home/results"))[0]->plans[0];
$receipt = ['version' => 1, 'samples' => $plan->length(), 'rate' => 48_000, 'bytes' => 1_000_000];
DB::transaction(function () use ($home, $source, $tracks, $sources, $orders, $plan, $receipt): void {
    $insert = function (string $table, array $rows): void {
        foreach (array_chunk($rows, 100) as $some) {
            DB::table($table)->insert($some);
        }
    };
    $when = fn (int $minutes): string => date('Y-m-d H:i:s', 1_790_000_000 + 60 * $minutes);
    $rows = $tracked = [];
    for ($number = 1; $number <= (int) $sources; $number++) {
        $name = sprintf('Take %05d Tour.mp4', $number);
        $rows[] = ['id' => $number, 'name' => $name, 'path' => "/shelf/$name", 'folder' => sprintf('Day %03d', intdiv($number, 200)),
            'origin' => 'shelf',
            'worst' => $number % 7 === 0 ? 'warn' : null, 'created_at' => $when($number), 'updated_at' => $when($number)] + $source;
        foreach ($tracks as $track) {
            $tracked[] = ['source_id' => $number, 'analysis' => $track['kind'] === 'sound' ? '{}' : null, 'codec' => $number % 9 === 0
                ? 'mp3' : $track['codec']] + $track;
        }
        if (count($rows) === 500 || $number === (int) $sources) {
            $insert('sources', $rows);
            $insert('tracks', $tracked);
            $rows = $tracked = [];
        }
    }
    $document = json_encode($plan->toArray(), JSON_THROW_ON_ERROR);
    for ($order = 1; $order <= (int) $orders; $order++) {
        DB::table('orders')->insert(['id' => $order, 'spec' => '{"version":1,"container":"flac"}', 'summary' => 'FLAC', 'state' => 'placed', 'sheet' => '{}',
            'placed_at' => $when($order), 'created_at' => $when($order), 'updated_at' => $when($order)]);
        for ($number = 1; $number <= RESULTS; $number++) {
            $id = RESULTS * ($order - 1) + $number;
            $name = sprintf('Take %05d Tour.flac', $id);
            $state = $id % 97 === 0 ? 'failed' : 'done';
            $rows[] = ['order_id' => $order, 'source_id' => 1 + $id % (int) $sources, 'source_name' => sprintf('Take %05d Tour.mp4',
                1 + $id % (int) $sources), 'name' => $name,
                'action' => 'remade', 'state' => $state, 'plan' => $document, 'spec' => '{"version":1}', 'source_bytes' => 1_000_000,
                'predicted_bytes' => 1_000_000,
                'samples' => $plan->length(), 'rate' => 48_000, 'done_samples' => $plan->length(), 'path' => sprintf('%s/results/%04d/%s',
                    $home, $order, $name),
                'receipt' => $state === 'done' ? json_encode($receipt, JSON_THROW_ON_ERROR) : null, 'binned' => $id % 50 === 0
                    ? "$home/bin/$id/$name" : null,
                'error_says' => $state === 'done' ? null : 'The drive went away.', 'begun_at' => $when($order), 'ended_at' => $when($order), 'created_at' => $when($order), 'updated_at' => $when($order)];
        }
        if ($order % 10 === 0 || $order === (int) $orders) {
            $insert('results', $rows);
            $rows = [];
        }
    }
});
$draft = DB::table('orders')->insertGetId(['spec' => '{"version":1,"container":"wav"}', 'summary' => '', 'state' => 'draft', 'sheet' => '{}', 'created_at' => now(), 'updated_at' => now()]);
DB::table('order_lines')->insert(array_map(fn (int $id): array => ['order_id' => $draft, 'source_id' => $id, 'position' => $id], range(1,
    4)));
$token = $app->make(IssueToken::class)->issue('bench', AccessScope::cases());
$middle = intdiv((int) $orders, 2);
$addresses = ['/work', '/sources', '/sources?by=name', '/sources?by=length', '/sources?by=size', '/sources?by=container',
    '/sources?by=folder', '/sources?find=Take%200999', '/sources?find=zz', '/sources?show=codec:mp3',
    '/sources?show=findings', '/sources?for=podcast-host', '/sources/500', '/results', "/results?order=$middle", '/results?find=0999',
    '/results?find=Tour', '/results?find=zq', '/results?find=nothing', '/results?show=failed',
    '/results?show=open', '/results?show=bin', '/results?show=done', '/results?in='.rawurlencode(sprintf('%s/results/%04d', $home,
        $middle)), '/results/changes?since='.time(), '/order', "/orders/$draft", "/orders/$draft/tags", '/orders', '/recipes', '/destinations',
    '/standing', '/outside', '/outside/players', '/outside/recorders', '/outside/publish', '/outside/page?results=50,51,52', '/shelves',
    '/settings', '/bin', '/interface', '/api/v1/sources', '/api/v1/sources?find=0999', '/api/v1/results', '/api/v1/results?order='.$middle, '/api/v1/orders', "/api/v1/orders/$middle",
    "/api/v1/orders/$middle/results", '/api/v1/sources/500'];
$links = function (string $html) use (&$addresses): void {
    // The next page of each list, wherever it leads, and the one after that.
    if (preg_match('/href="http:\/\/localhost:8000([^"]+)" rel="next"/', $html, $found) === 1) {
        $addresses[] = html_entity_decode($found[1]);
    }
};
$get = function (string $address) use ($app, $token): array {
    $app->forgetScopedInstances();
    $app->make(Presets::class)->forget();
    $app->make(Settings::class)->forget();
    $before = getrusage() ?: [];
    $request = Request::create("http://localhost:8000$address");
    if (str_starts_with($address, '/api')) {
        $request->headers->set('Authorization', "Bearer $token");
    }
    $answer = $app->make(Kernel::class)->handle($request);
    $after = getrusage() ?: [];
    if (! in_array($answer->getStatusCode(), [200, 204, 302], true)) {
        throw new RuntimeException("$address gives {$answer->getStatusCode()}: ".substr((string) $answer->getContent(), 0, 500));
    }
    $spent = 0.0;
    foreach (['utime', 'stime'] as $kind) {
        $spent += ($after["ru_$kind.tv_sec"] - $before["ru_$kind.tv_sec"]) * 1e3 + ($after["ru_$kind.tv_usec"] - $before["ru_$kind.tv_usec"]) / 1e3;
    }

    return [$spent, strlen((string) $answer->getContent()), (string) $answer->getContent()];
};
$figures = [];
$followed = 0;
for ($index = 0; $index < count($addresses); $index++) {
    $get($addresses[$index]);
    $times = [];
    for ($round = 0; $round < 3; $round++) {
        [$times[], $bytes, $html] = $get($addresses[$index]);
    }
    sort($times);
    $figures[$addresses[$index]] = [round($times[1], 1), $bytes];
    if ($followed++ < 60) {
        $links($html);
    }
}
// What the keeper does every few seconds.
$before = hrtime(true);
$app->make(Recover::class)->run();
$figures['what is looked after every few seconds'] = [round((hrtime(true) - $before) / 1e6, 1), 0];
echo json_encode($figures, JSON_THROW_ON_ERROR);
