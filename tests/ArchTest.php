<?php

declare(strict_types=1);

use Octavox\Core\Testing\CodeFacts;
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
    ['theWebParsesNoMedia', 'app/Http/Planted.php', 'public function a() { \Octavox\Core\Reading\Opener::open(1); }'],
    ['theWebParsesNoMedia', 'app/Queries/Planted.php', 'public function a() { new \Octavox\Core\Container\Matroska\MatroskaFile; }'],
    ['theWebParsesNoMedia', 'app/Values/Planted.php', 'public function a(\Octavox\Core\Make\Maker $maker) { }'],
    ['nobodyCallsLibraries', 'cli/Planted.php', 'public function a() { \FFI::cdef(""); }'],
    ['nobodyCallsLibraries', 'app/Actions/Planted.php', 'public function a() { new \Octavox\Core\Codec\Native\Lame; }'],
    ['controllersAreThin', 'app/Http/Controllers/Planted.php', 'public function a() { \Illuminate\Support\Facades\DB::table("x"); }'],
    ['controllersAreThin', 'app/Http/Controllers/Planted.php', 'public function a() { new \Octavox\Core\Plan\OrderPlanner; }'],
    ['controllersAreThin', 'app/Http/Controllers/Planted.php',
        "public function a()\n    {".str_repeat("\n        \$this->b();", 36)."\n    }"],
    ['onlyProcessesBeginProcesses', 'app/Jobs/Planted.php', 'public function a() { proc_open([], [], $pipes); }'],
    ['onlyProcessesBeginProcesses', 'cli/Planted.php', 'public function a() { \shell_exec("ls"); }'],
    ['planningIsOutsideOfTransactions', 'app/Actions/Planted.php',
        'public function a() { \Illuminate\Support\Facades\DB::transaction(fn () => \Octavox\Core\Plan\OrderPlanner::plan([])); }'],
    ['planningIsOutsideOfTransactions', 'app/Actions/Planted.php',
        'public function a() { \Illuminate\Support\Facades\DB::transaction(function () { return $this->plans->for(1, 2); }); }'],
    ['everyJobHasFailed', 'app/Jobs/Planted.php', 'public function handle() { }'],
    ['everyJobHasFailed', 'app/Jobs/Planted.php', 'private function failed() { }'],
    ['nothingIsDumped', 'app/Values/Planted.php', 'public function a() { dd(1); }'],
    ['nothingIsDumped', 'app/Values/Planted.php', 'public function a() { exit(1); }'],
    ['nothingIsDumped', 'app/Values/Planted.php', 'public function a() { unserialize(""); }'],
    ['nothingGoesToTheVoid', 'app/Processes/Planted.php', 'public function a() { return [2 => ["file", \'/dev/null\', \'w\']]; }'],
    ['theCodeIsInOrder', 'app/Values/Planted.php', 'public function a($a, $b, $c, $d, $e, $f, $g, $h) { }'],
    ['theCodeIsInOrder', 'app/Values/Planted.php', 'public function a() { throw new \Exception; }'],
    ['theCodeIsInOrder', 'app/Values/Planted.php', '/* '.str_repeat('x', 140).' */'],
]);

it('plants a breach of every rule', function () {
    $planted = (string) file_get_contents(__FILE__);
    foreach (ApplicationRules::all() as $rule) {
        expect($planted)->toContain("    ['$rule', '");
    }
});

it('keeps logic out of the views', function () {
    foreach (glob(__DIR__.'/../resources/views/{,*/}*.blade.php', GLOB_BRACE) ?: [] as $view) {
        expect(file_get_contents($view))->not->toContain('@php')->not->toContain('<?php');
    }
});

it('fetches nothing from elsewhere', function () {
    $shipped = [...glob(__DIR__.'/../resources/views/{,*/}*.blade.php', GLOB_BRACE) ?: [], ...glob(__DIR__.'/../public/assets/*') ?: []];
    foreach ($shipped as $file) {
        expect(preg_replace('#http://www\.w3\.org/2000/svg#', '', (string) file_get_contents($file)))->not->toMatch(
            '#(src|href)="https?://|url\(https?:|@import#');
    }
});
