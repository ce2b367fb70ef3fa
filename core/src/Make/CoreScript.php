<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

/** How the scripts in `bin/` are begun: native calls allowed, nothing but their own words on their outputs, memory bounded. */
final class CoreScript
{
    private const OPTIONS = ['-d', 'ffi.enable=1', '-d', 'display_errors=0', '-d', 'log_errors=0', '-d', 'opcache.enable_cli=1', '-d', 'opcache.jit=tracing', '-d', 'opcache.jit_buffer_size=16M'];

    /**
     * @param  string  $name  without ending
     * @param  int  $mebibytes  that PHP may use
     * @return list<string>
     */
    public static function command(string $name, int $mebibytes = 192): array
    {
        return [PHP_BINARY, '-d', "memory_limit={$mebibytes}M", ...self::OPTIONS, dirname(__DIR__, 2)."/bin/$name.php"];
    }

    /**
     * Begins a script that reads one JSON value.
     *
     * @param  array<array-key, mixed>  $wish  what it reads
     * @param  string  ...$words  arguments
     * @return ?array{resource, resource} the process and what it says; null where none can be started
     */
    public static function begin(string $name, array $wish, string ...$words): ?array
    {
        $pipes = [];
        $process = proc_open([...self::command($name), ...array_values($words)], [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
        if (! is_resource($process)) {
            return null;
        }
        fwrite($pipes[0], json_encode($wish, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION));
        fclose($pipes[0]);

        return [$process, $pipes[1]];
    }
}
