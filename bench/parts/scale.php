<?php

declare(strict_types=1);

use Octavox\Bench\Workbench;

// What every page, poll and answer takes on the server after months of use: 10,000 sources, 1,000 orders of 100 results each.
return function (Workbench $bench): void {
    $home = $bench->folder.'/scale';
    mkdir($home);
    copy($bench->movie('aac.mp4', 60), "$home/Tour.mp4");
    $command = [PHP_BINARY, '-d', 'opcache.enable_cli=1', '-d', 'memory_limit=1G', dirname(__DIR__).'/scale.php', $home, '10000', '1000'];
    $process = proc_open($command, [1 => ['pipe', 'w']], $pipes);
    /** @var ?array<string, array{float, int}> $took */
    $took = json_decode((string) stream_get_contents($pipes[1]), true);
    if (! is_resource($process) || proc_close($process) !== 0 || ! is_array($took)) {
        throw new RuntimeException('The pages could not be measured; ./octavox serve installs what they need.');
    }
    foreach ($took as $address => [$milliseconds, $bytes]) {
        $bench->line($address, sprintf('%.0f ms, %.0f kB', $milliseconds, $bytes / 1000), '< 150 ms');
    }
};
