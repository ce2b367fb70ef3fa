<?php

declare(strict_types=1);

// The benchmarks: ratios of whole processes measured in turn (A, B, A, B …) on this machine, so that its mood counts for both.

use Octavox\Bench\Workbench;

require __DIR__.'/../core/bin/autoload.php';
require __DIR__.'/Video.php';
require __DIR__.'/Stopwatch.php';
require __DIR__.'/Limits.php';
require __DIR__.'/Workbench.php';
ini_set('memory_limit', '2G');

// What is measured in short, of the same things, is a part of the tests.
const ASKED_FOR = ['quick'];

$parts = array_map(fn (string $path): string => basename($path, '.php'), glob(__DIR__.'/parts/*.php') ?: []);
$chosen = array_slice($argv, 1) ?: array_diff($parts, ASKED_FOR);
foreach (array_diff($chosen, $parts) as $unknown) {
    fwrite(STDERR, "There is no part $unknown: ".implode(', ', $parts).".\n");
    exit(2);
}
$folder = sys_get_temp_dir().'/octavox-bench-'.getmypid();
mkdir($folder);
$parent = getmypid();
register_shutdown_function(fn () => getmypid() === $parent && exec('rm -rf '.escapeshellarg($folder)));
$bench = new Workbench($folder);
$bench->line('what', 'measured', 'wanted');
$isWithin = true;
foreach ($chosen as $part) {
    $began = hrtime(true);
    echo "\n$part\n";
    $isWithin = (require __DIR__."/parts/$part.php")($bench) !== false && $isWithin;
    printf("  (%.0f s)\n", (hrtime(true) - $began) / 1e9);
}
exit($isWithin ? 0 : 1);
