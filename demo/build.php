<?php

declare(strict_types=1);

// Builds the demo data into a folder; where a home is named, loads its drive and plugs a recorder in. Prints the paths, one a line.

use Octavox\Demo\DemoData;

require __DIR__.'/../core/bin/autoload.php';
spl_autoload_register(function (string $class): void {
    if (str_starts_with($class, 'Octavox\\Demo\\')) {
        require __DIR__.'/src/'.substr($class, strlen('Octavox\\Demo\\')).'.php';
    }
});

ini_set('memory_limit', '1G');
$data = new DemoData($argv[1] ?? 'demo-data');
echo implode("\n", $data->build()), "\n";
if (isset($argv[2])) {
    $data->plug($argv[2]);
}
