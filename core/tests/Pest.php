<?php

declare(strict_types=1);

// What takes long: thousands of damaged files, long sounds, other encoders, processes that are killed. `./octavox test --fast` leaves it
// out.
pest()->group('slow')->in('MutationTest.php', 'BadInputTest.php', 'SecondLookTest.php', 'JoiningTest.php', 'ForeignCodecTest.php',
    'MakeTest.php', 'VideoTest.php');

/** @return array{int, mixed, string} exit status, decoded standard output, standard error */
function octavox(string ...$words): array
{
    $process = proc_open([dirname(__DIR__, 2).'/octavox', ...$words], [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    $out = stream_get_contents($pipes[1]);
    $error = stream_get_contents($pipes[2]);

    return [proc_close($process), json_decode($out, true) ?? $out, $error];
}
