<?php

declare(strict_types=1);

use Octavox\Core\Testing\CodeFacts;
use Tests\Architecture\Rooms;
use Tests\Support\ApplicationRules;

/** @return list<CodeFacts> */
function applicationCode(): array
{
    static $files = null;

    return $files ??= [...CodeFacts::below(dirname(__DIR__).'/app', 'app/'), ...CodeFacts::below(dirname(__DIR__).'/cli/src', 'cli/')];
}

it('keeps the rules of the application', function (string $rule) {
    expect((new ApplicationRules(applicationCode()))->{$rule}())->toBe([]);
})->with(fn (): array => ApplicationRules::all());

it('finds a breach of each rule that is planted', function (string $rule, string $path, string $code) {
    $planted = CodeFacts::of($path, "<?php\n\ndeclare(strict_types=1);\n\nnamespace App;\n\nfinal class Planted\n{\n    $code\n}\n");
    expect((new ApplicationRules([$planted]))->{$rule}())->toHaveCount(1);
})->with([
    ['controllersAreShort', 'app/Sources/Pages/PlantedController.php',
        "public function a()\n    {".str_repeat("\n        \$this->b();", 36)."\n    }"],
    ['planningIsOutsideOfTransactions', 'app/Actions/Planted.php',
        'public function a() { \Illuminate\Support\Facades\DB::transaction(fn () => \Octavox\Core\Plan\OrderPlanner::plan([])); }'],
    ['planningIsOutsideOfTransactions', 'app/Actions/Planted.php',
        'public function a() { \Illuminate\Support\Facades\DB::transaction(function () { return $this->plans->for(1, 2); }); }'],
    ['planningIsOutsideOfTransactions', 'app/Actions/Planted.php',
        'public function a(\App\Orders\Pages\OrderSheet $sheets) { \Illuminate\Support\Facades\DB::transaction(fn () => app(\App\Orders\Pages\OrderSheet::class)->of(1)); }'],
    ['nothingGoesToTheVoid', 'app/Processes/Planted.php', 'public function a() { return [2 => ["file", \'/dev/null\', \'w\']]; }'],
    ['theCodeIsInOrder', 'app/Values/Planted.php', 'public function a($a, $b, $c, $d, $e, $f, $g, $h) { }'],
    ['theCodeIsInOrder', 'app/Values/Planted.php', '/* '.str_repeat('x', 140).' */'],
]);

it('draws no circle among the rooms', function () {
    $before = [];
    foreach (Rooms::CORE as $room => $used) {
        expect(array_diff($used, $before))->toBe([], $room);
        $before[] = $room;
    }
});

it('knows every folder as a room', function () {
    $folders = fn (string $of): array => array_map(basename(...), glob(dirname(__DIR__)."/$of/*", GLOB_ONLYDIR) ?: []);
    expect(array_diff($folders('core/src'), array_keys(Rooms::CORE)))->toBe([])->and(array_diff($folders('app'), Rooms::APPLICATION))
        ->toBe([]);
});

it('plants a breach of every rule', function () {
    $planted = (string) file_get_contents(__FILE__);
    foreach (ApplicationRules::all() as $rule) {
        expect($planted)->toContain("    ['$rule', '");
    }
});

/** @return list<string> what breaks the rules of views in a text */
function viewBreaches(string $view): array
{
    $found = [];
    foreach (['code' => '/@php|<\\?php/', 'a static call' => '/\b[A-Z]\w*::\w+\s*\(/', 'a value that is not escaped' => '/\{!!/',
        'a question to the database' => '/->(where\w*|newQuery)\s*\(|\bDB::/', 'the container' => '/\b(app|resolve)\s*\(/',
        'a long line' => '/^.{141,}$/mu'] as $what => $pattern) {
        if (preg_match($pattern, $view) === 1) {
            $found[] = $what;
        }
    }

    return $found;
}

it('keeps logic out of the views, and lines short', function () {
    foreach (glob(__DIR__.'/../resources/views/{,*/}*.blade.php', GLOB_BRACE) ?: [] as $view) {
        expect(viewBreaches((string) file_get_contents($view)))->toBe([], $view);
    }
});

it('finds a breach of the rules of views that is planted', function (string $view, string $what) {
    expect(viewBreaches("<p>{{ \$name }}</p>\n$view\n"))->toBe([$what]);
})->with([
    ['@php($x = 1)', 'code'], ['<?php echo 1; ?>', 'code'], ['{{ App\\Lists\\Humanize::bytes(1) }}', 'a static call'],
    ['@foreach(Source::all() as $one) @endforeach', 'a static call'], ['{!! request("x") !!}', 'a value that is not escaped'],
    ['{{ $source->tracks()->where("kind", "sound")->count() }}', 'a question to the database'], ['{{ app("x") }}', 'the container'],
    [str_repeat('x', 141), 'a long line'],
]);

it('fetches nothing from elsewhere', function () {
    $shipped = [...glob(__DIR__.'/../resources/views/{,*/}*.blade.php', GLOB_BRACE) ?: [], ...glob(__DIR__.'/../public/assets/{,js/,js/*/}*.*', GLOB_BRACE) ?: []];
    foreach ($shipped as $file) {
        expect(preg_replace('#http://www\.w3\.org/2000/svg#', '', (string) file_get_contents($file)))->not->toMatch(
            '#(src|href)="https?://|url\(https?:|@import#');
    }
});
