<?php

declare(strict_types=1);

// Becomes a PHP that has what the core needs of it and nothing else, and runs the script that the first argument names.

use Octavox\Core\Make\CoreScript;

require __DIR__.'/autoload.php';

$command = CoreScript::php(true);
pcntl_exec(array_shift($command), [...$command, '-d', 'log_errors=1', ...array_slice($argv, 1)]);
fwrite(STDERR, "Octavox could not begin: this PHP cannot start another.\n");
exit(1);
