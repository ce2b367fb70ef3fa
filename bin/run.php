<?php

declare(strict_types=1);

// Starts Octavox: prepares what it keeps, then the web server, one maker a processor and a reader; begins again
// whatever dies, and stops all of them on Ctrl-C.

require __DIR__.'/Supervisor.php';

$options = getopt('', ['port:', 'demo'], $rest);
if ($rest !== $argc) {
    fwrite(STDERR, "There is no option {$argv[$rest]} here; run ./octavox help to see what there is.\n");
    exit(2);
}
exit((new Octavox\Run\Supervisor(dirname(__DIR__), (int) ($options['port'] ?? 8080), isset($options['demo'])))->run());
