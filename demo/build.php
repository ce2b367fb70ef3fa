<?php

declare(strict_types=1);

// Builds the demo data into a folder; prints the paths, one a line.

use Octavox\Demo\DemoData;

require __DIR__.'/../core/bin/autoload.php';
spl_autoload_register(function (string $class): void {
    if (str_starts_with($class, 'Octavox\\Demo\\')) {
        require __DIR__.'/src/'.substr($class, strlen('Octavox\\Demo\\')).'.php';
    }
});

ini_set('memory_limit', '1G');
echo implode("\n", (new DemoData($argv[1] ?? 'demo-data'))->build()), "\n";
