<?php

declare(strict_types=1);

// Runs the script that the first argument names in a PHP that has what the core needs of it and nothing else.

use Octavox\Core\Parallel\CoreScript;

require __DIR__.'/autoload.php';

$command = [...CoreScript::php(brief: true), '-d', 'memory_limit=256M', '-d', 'log_errors=1', ...array_slice($argv, 1)];
if (function_exists('pcntl_exec')) {
    pcntl_exec($command[0], array_slice($command, 1));
}
// Where this process cannot become another one it waits for it.
$process = proc_open($command, [STDIN, STDOUT, STDERR], $pipes);
exit(is_resource($process) ? proc_close($process) : 1);
