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
    ['roomsUseOnlyThoseBefore', 'Sound/Planted.php', 'new \Octavox\Core\Media\NoProgress;'],
    ['roomsUseOnlyThoseBefore', 'Analysis/Planted.php', 'new \Octavox\Core\Make\Maker;'],
    ['roomsUseOnlyThoseBefore', 'Plan/Planted.php', '\Octavox\Core\Decode\FrameReader::open("x");'],
    ['roomsUseOnlyThoseBefore', 'Unknown/Planted.php', 'new \Octavox\Core\Media\NoProgress;'],
    ['theCoreKnowsNobodyOutside', 'Make/Planted.php', '\App\Sources\Models\Source::query();'],
    ['theCoreKnowsNobodyOutside', 'Make/Planted.php', '\Illuminate\Support\Str::random();'],
    ['onlyNativeFoldersTouchFfi', 'Codec/Flac/Planted.php', '\FFI::cdef("");'],
    ['onlyNativeFoldersTouchFfi', 'Sound/Planted.php', '$x = function (\FFI\CData $data): void {};'],
    ['containersKnowNoCodecLibrary', 'Container/Wave/Planted.php', 'new \Octavox\Core\Codec\Native\Lame;'],
    ['containersKnowNoCodecLibrary', 'Container/Wave/Planted.php', '\Octavox\Core\Codec\Codecs::decoder($x);'],
    ['containersKnowNoCodecLibrary', 'Container/Wave/Planted.php', '\Octavox\Core\Codec\Aac\AacDecoder::priming("");'],
    ['onlyMakersAndSinksWriteFiles', 'Container/Wave/Planted.php', 'copy("a", "b");'],
    ['onlyMakersAndSinksWriteFiles', 'Container/Wave/Planted.php', '\symlink("a", "b");'],
    ['onlyMakersAndSinksWriteFiles', 'Make/Planted.php', 'rmdir("a");'],
    ['onlyMakersAndSinksWriteFiles', 'Make/Verifier2.php', '@UNLINK("a");'],
    ['onlyMakersAndAnalysesCreateSinks', 'Container/Planted.php', '\Octavox\Core\Bytes\FileSink::create("x");'],
    ['nothingPrintsOrEnds', 'Container/Wave/Planted.php', 'echo "x";'],
    ['nothingPrintsOrEnds', 'Container/Wave/Planted.php', 'exit;'],
    ['nothingPrintsOrEnds', 'Plan/Planted.php', 'var_dump(1);'],
    ['nothingPrintsOrEnds', 'Make/Planted.php', 'proc_open("x", [], $pipes);'],
    ['planningOpensNothing', 'Plan/Planted.php', 'is_file("x");'],
    ['planningOpensNothing', 'Plan/Planted.php', 'microtime(true);'],
    ['planningOpensNothing', 'Destination/Planted.php', 'is_file("x");'],
    ['planningOpensNothing', 'Plan/Planted.php', '\Octavox\Core\Reading\Opener::open("x");'],
    ['planningOpensNothing', 'Order/Planted.php', '\Octavox\Core\Container\Containers::openFile("x");'],
    ['planningOpensNothing', 'Plan/Planted.php', '\Octavox\Core\Codec\Codecs::encoder($x, $y, 0);'],
    ['planningOpensNothing', 'Plan/Planted.php', '\Octavox\Core\Sound\Native\VectorMath::get();'],
    ['whatIsThrownIsAFailure', 'Container/Wave/Planted.php', 'throw new \RuntimeException("x");'],
    ['functionsHaveSevenParametersAtMost', 'Plan/Planted.php',
        '} public function many(int $a, int $b, int $c, int $d, int $e, int $f, int $g, int $h): void {'],
    ['linesAreWithin140Columns', 'Plan/Planted.php', '$x = "'.str_repeat('x', 140).'";'],
    ['whatThrowsSaysSo', 'Plan/Planted.php', 'throw \Octavox\Core\Plan\PlanUnreadable::broken("x");'],
    ['whatThrowsSaysSo', 'Plan/Planted.php', '$x = null ?? throw \Octavox\Core\Plan\PlanUnreadable::broken("x");'],
]);

it('finds classes that are open and files that are not strict', function () {
    $open = CodeFacts::of('Plan/Planted.php',
        "<?php\n\ndeclare(strict_types=1);\n\nnamespace Octavox\\Core\\Plan;\n\nclass Planted\n{\n}\n");
    $lax = CodeFacts::of('Plan/Planted.php', "<?php\n\nnamespace Octavox\\Core\\Plan;\n\nfinal class Planted\n{\n}\n");
    expect((new HouseRules([$open]))->classesAreClosed())->toBe(['Plan/Planted.php: Planted'])
        ->and((new HouseRules([$lax]))->everythingIsStrict())->toBe(['Plan/Planted.php: no strict types']);
});

it('draws no circle among the rooms', function () {
    $before = [];
    foreach (HouseRules::ROOMS as $room => $used) {
        expect(array_diff($used, $before))->toBe([], $room);
        $before[] = $room;
    }
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
