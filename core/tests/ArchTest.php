<?php

declare(strict_types=1);

use Octavox\Core\Testing\CodeFacts;
use Octavox\Core\Tests\Support\HouseRules;

/** @return list<CodeFacts> of the core's sources, parsed once */
function house(): array
{
    static $files = null;

    return $files ??= CodeFacts::below(dirname(__DIR__).'/src');
}

it('keeps the rules of the house', function (string $rule) {
    expect((new HouseRules(house()))->{$rule}())->toBe([]);
})->with(fn (): array => HouseRules::all());

it('finds a breach of each rule that is planted', function (string $rule, string $path, string $code) {
    $namespace = 'Octavox\Core\\'.str_replace('/', '\\', dirname($path));
    $code = "<?php\n\ndeclare(strict_types=1);\n\nnamespace $namespace;\n\nfinal class Planted\n{\n    public function work(): void\n
           {\n        $code\n    }\n}\n";
    expect((new HouseRules([CodeFacts::of($path, $code)]))->{$rule}())->toHaveCount(1)
        ->and((new HouseRules([CodeFacts::of($path, $code)]))->{$rule}()[0])->toStartWith($path.': ');
})->with([
    ['onlyMakersAndAnalysesCreateSinks', 'Container/Planted.php', '\Octavox\Core\Bytes\FileSink::create("x");'],
    ['whatIsThrownIsAFailure', 'Container/Wave/Planted.php', 'throw new \RuntimeException("x");'],
    ['functionsHaveSevenParametersAtMost', 'Plan/Planted.php',
        '} public function many(int $a, int $b, int $c, int $d, int $e, int $f, int $g, int $h): void {'],
    ['linesAreWithin140Columns', 'Plan/Planted.php', '$x = "'.str_repeat('x', 140).'";'],
]);

it('finds classes that are open', function () {
    $open = CodeFacts::of('Plan/Planted.php',
        "<?php\n\ndeclare(strict_types=1);\n\nnamespace Octavox\\Core\\Plan;\n\nclass Planted\n{\n}\n");
    expect((new HouseRules([$open]))->classesAreClosed())->toBe(['Plan/Planted.php: Planted']);
});

it('gives every failure a code of its own', function () {
    $codes = [];
    foreach (house() as $file) {
        if (str_contains($file->code, 'extends Failure') && preg_match("/function code\(\): string\s*\{\s*return '([^']+)'/", $file->code,
            $match) === 1) {
            $codes[$file->path] = $match[1];
        }
    }
    expect(count($codes))->toBeGreaterThan(15)->and(array_unique($codes))->toHaveCount(count($codes));
});
