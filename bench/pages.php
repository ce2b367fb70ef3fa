<?php

declare(strict_types=1);

// A process of its own for the part `pages`: the application with a home that is thrown away, and a clock around what a page takes.

use App\Orders\Actions\ChangeLines;
use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Pages\OrderSheet;
use App\Orders\Pages\SheetView;
use App\Orders\Planning\PlanOrder;
use App\Orders\Values\Scope;
use App\Presets\Queries\Presets;
use App\Sources\Actions\RecordReading;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use Illuminate\Contracts\Console\Kernel as Console;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine as PlanLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Reading\Reader;

[, $home, $lines, $sources] = $argv;
foreach (['OCTAVOX_HOME' => $home, 'OCTAVOX_PORT' => '8000', 'APP_KEY' => 'base64:'.base64_encode(str_repeat('k', 32))] as $name => $value) {
    putenv("$name=$value");
    $_ENV[$name] = $value;
}
require dirname(__DIR__).'/vendor/autoload.php';
$app = require dirname(__DIR__).'/bootstrap/app.php';
$app->make(Console::class)->bootstrap();
array_map(fn (string $folder) => is_dir("$home/$folder") || mkdir("$home/$folder"), ['results', 'logs', 'sessions', 'cache']);
touch("$home/octavox.sqlite");
$app->make(Console::class)->call('migrate', ['--force' => true]);
Queue::fake();

// Sources of two kinds, as they were read once, under as many names.
$rows = [];
foreach (glob("$home/*.{mp4,wav}", GLOB_BRACE) ?: [] as $path) {
    $one = Source::query()->create(['name' => basename($path), 'path' => $path, 'origin' => 'upload', 'state' => 'reading']);
    $app->make(RecordReading::class)->readable($one, Reader::read($path));
    /** @var array{id: int, path: string, reading: string} $attributes */
    $attributes = $one->refresh()->getAttributes();
    $rows[] = [$attributes, $one->tracks->map(fn (Track $track): array => $track->getAttributes())->all()];
    $one->delete();
}
DB::transaction(function () use ($rows, $sources): void {
    for ($number = 0; $number < (int) $sources; $number++) {
        [$source, $tracks] = $rows[$number % count($rows)];
        $name = sprintf('Take %05d %s', $number, basename($source['path']));
        $id = DB::table('sources')->insertGetId(['name' => $name, 'path' => "/shelf/$name",
            'reading' => str_replace((string) json_encode($source['path']), (string) json_encode("/shelf/$name"), $source['reading'])]
            + array_diff_key($source, ['id' => 1]));
        DB::table('tracks')->insert(array_map(fn (array $track): array => ['source_id' => $id] + array_diff_key($track, ['id' => 1]),
            $tracks));
    }
});
$order = Order::query()->create(['spec' => ['version' => 1, 'container' => 'wav']]);
foreach (array_chunk(array_filter(Source::query()->limit((int) $lines)->pluck('id')->all(), is_int(...)), 200) as $part) {
    OrderLine::query()->insert(array_map(fn (int $id): array => ['order_id' => $order->id, 'source_id' => $id, 'position' => $id], $part));
}

$took = function (Closure $work, int $times = 5): float {
    $all = [];
    for ($time = 0; $time < $times; $time++) {
        app(Presets::class)->forget();
        $began = hrtime(true);
        $work($time);
        $all[] = (hrtime(true) - $began) / 1e6;
    }
    sort($all);

    return $all[intdiv($times, 2)];
};
$get = function (string $address) use ($app): void {
    $answer = $app->make(Kernel::class)->handle(Request::create("http://localhost:8000$address"));
    if ($answer->getStatusCode() !== 200) {
        throw new RuntimeException("$address gives {$answer->getStatusCode()}.");
    }
};
$sheet = fn (): string => view('orders.renewed', ['sheet' => app(OrderSheet::class)->build($order->refresh(), SheetView::fromInput([]))])
    ->render();
$readings = array_map(fn (OrderLine $line): PlanLine => new PlanLine($line->source->facts() ?? throw new LogicException('Not read.')),
    $order->lines()->with('source')->get()->all());
$change = fn (array $fields) => app(ChangeLines::class)->with($order, null, Scope::All, $fields);
$figures = [
    'plan' => $took(fn () => OrderPlanner::plan($readings, new OutputSpec('wav', place: '/x'))),
    'cold' => $took(function () use ($sheet): void {
        Cache::flush();
        $sheet();
    }),
    'warm' => $took($sheet),
    'page' => $took(fn () => $get('/orders/'.$order->id)),
    'change' => $took(function (int $time) use ($change, $sheet): void {
        $change(['rate' => $time % 2 === 0 ? '44100' : '48000']);
        $sheet();
    }),
    'sources' => $took(fn () => $get('/sources')),
    'other' => $took(fn () => $get('/recipes')),
];
$order->update(['destination' => 'radio-desk']);
$sheet();
$figures['goes'] = $took($sheet);
$figures['goes anew'] = $took(function () use ($sheet): void {
    Cache::flush();
    $sheet();
});
echo json_encode($figures + ['planned' => count(app(PlanOrder::class)->for($order))]);
