<?php

declare(strict_types=1);

use Octavox\Bench\Workbench;

// What pages take on the server, in a home of 10,000 sources and an order of 500 lines; beside it planning the same lines alone.
return function (Workbench $bench): void {
    $home = $bench->folder.'/pages';
    mkdir($home);
    copy($bench->movie('aac.mp4', 60), "$home/Tour.mp4");
    $made = shell_exec(sprintf('%s make %s --into %s --format wav --json 2>/dev/null', escapeshellarg($bench->octavox),
        escapeshellarg("$home/Tour.mp4"), escapeshellarg($home)));
    if (! is_string($made)) {
        throw new RuntimeException('The sources of the part pages could not be made.');
    }
    $command = [PHP_BINARY, '-d', 'opcache.enable_cli=1', '-d', 'memory_limit=1G', dirname(__DIR__).'/pages.php', $home, '500', '10000'];
    $process = proc_open($command, [1 => ['pipe', 'w']], $pipes);
    /** @var ?array<string, float> $took */
    $took = json_decode((string) stream_get_contents($pipes[1]), true);
    if (! is_resource($process) || proc_close($process) !== 0 || ! is_array($took)) {
        throw new RuntimeException('The pages could not be measured; ./octavox serve installs what they need.');
    }
    $line = fn (string $what, string $key, string $wanted) => $bench->line($what,
        sprintf('%.0f ms, %.1f × planning alone', $took[$key], $took[$key] / $took['plan']), $wanted);
    $bench->line('500 lines planned by the core alone', sprintf('%.0f ms', $took['plan']), '< 250 ms');
    $line('sheet of 500 lines, nothing remembered', 'cold', '');
    $line('sheet of 500 lines', 'warm', '< 300 ms');
    $line('the whole page of it', 'page', '< 300 ms');
    $line('a change to all lines, and the sheet after it', 'change', '< 500 ms');
    $line('sheet of 500 lines for a destination', 'goes', '< 300 ms');
    $line('the same, nothing remembered', 'goes anew', '');
    $line('page of sources, of 10,000', 'sources', '< 150 ms');
    $line('page of recipes', 'other', '< 100 ms');
};
