<?php

declare(strict_types=1);

/** @return iterable<string, string> code of every source file below a folder, by path */
function sourceFiles(string $folder): iterable
{
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator(dirname(__DIR__).'/src/'.$folder,
        FilesystemIterator::SKIP_DOTS)) as $file) {
        yield substr((string) $file, strlen(dirname(__DIR__)) + 1) => (string) file_get_contents((string) $file);
    }
}

/** @return list<string> files below $folder that use something of the namespaces */
function users(string $folder, string $pattern): array
{
    $found = [];
    foreach (sourceFiles($folder) as $path => $code) {
        if (preg_match($pattern, $code) === 1) {
            $found[] = $path;
        }
    }
    sort($found);

    return $found;
}

arch('the heart knows nothing of the application')->expect('Octavox\Core')->not->toUse(['App', 'Illuminate', 'Symfony', 'Octavox\Cli']);
arch('everything is strict')->expect('Octavox\Core')->toUseStrictTypes();
arch('nothing prints or dumps')->expect(['dd', 'dump', 'var_dump', 'print_r', 'echo', 'die', 'exit'])->not->toBeUsedIn('Octavox\Core');
arch('failures are of one family')->expect('Octavox\Core\Failure')->toBeAbstract();

it('keeps native calls in their two folders', function () {
    expect(array_values(array_filter(users('', '/\bFFI\b/'), fn (string $path): bool => ! str_contains($path, '/Native/'))))->toBe([]);
});

it('keeps containers away from codec libraries, and codecs away from containers', function () {
    expect(users('Container', '/use Octavox\\\\Core\\\\(Codec\\\\(Native|Codecs|\w+\\\\\w+(Decoder|Encoder)Impl)|Make|Plan|Reading)\b/'))
        ->toBe([])
        ->and(users('Codec', '/use Octavox\\\\Core\\\\(Container|Make|Plan|Reading)\b/'))->toBe([])
        ->and(users('Sound', '/use Octavox\\\\Core\\\\(Container|Codec|Make|Plan|Reading)\b/'))->toBe([])
        ->and(users('Bytes', '/use Octavox\\\\Core\\\\(?!Failure)(?!Bytes)/'))->toBe([]);
});

it('lets only the makers write files', function () {
    $writes = '/\b(fopen|file_put_contents|rename|unlink|link|mkdir|FileSink::create)\s*\(/';
    expect(users('', $writes))
        ->toBe(['src/Bytes/FileBytes.php', 'src/Bytes/FileSink.php', 'src/Make/Journal.php', 'src/Make/Maker.php',
            'src/Make/Pipeline/ParallelTail.php', 'src/Make/Workplace.php']);
});

it('makes classes final or abstract', function () {
    expect(users('', '/^(readonly )?class /m'))->toBe([]);
});

it('gives every failure a code of its own', function () {
    $codes = [];
    foreach (sourceFiles('') as $path => $code) {
        if (str_contains($code, 'extends Failure') && preg_match("/function code\(\): string\s*\{\s*return '([^']+)'/",
            $code, $match) === 1) {
            $codes[$path] = $match[1];
        }
    }
    expect(count($codes))->toBeGreaterThan(15)->and(array_unique($codes))->toHaveCount(count($codes));
});
