<?php

declare(strict_types=1);

// The commands that work without the web part: read, make, compare.

use Octavox\Cli\Application;

require __DIR__.'/../core/bin/autoload.php';
spl_autoload_register(static function (string $class): void {
    if (str_starts_with($class, 'Octavox\\Cli\\')) {
        require __DIR__.'/src/'.substr($class, strlen('Octavox\\Cli\\')).'.php';
    }
});

exit(Application::run(array_slice($argv, 1)));
