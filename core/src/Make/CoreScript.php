<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

/** How the scripts in `bin/` are begun: native calls allowed, nothing but their own words on their outputs, memory bounded. */
final class CoreScript
{
    private const OPTIONS = ['-d', 'ffi.enable=1', '-d', 'display_errors=0', '-d', 'log_errors=0'];

    /** Compiling takes longer than it saves where there is little to do. */
    private const BRIEF = ['-d', 'opcache.enable_cli=0'];

    private const LONG = ['-d', 'opcache.enable_cli=1', '-d', 'opcache.jit=tracing', '-d', 'opcache.jit_buffer_size=16M'];

    /**
     * @param  string  $name  without ending
     * @param  bool  $brief  whether it has work for a second or two only
     * @return list<string>
     */
    public static function command(string $name, bool $brief = false): array
    {
        return [PHP_BINARY, '-d', 'memory_limit=192M', ...self::OPTIONS, ...($brief ? self::BRIEF : self::LONG), dirname(__DIR__, 2)."/bin/$name.php"];
    }

    /**
     * Begins a script that reads one JSON value.
     *
     * @param  array<array-key, mixed>  $wish  what it reads
     * @param  bool  $brief  whether it has work for a second or two only
     * @param  string  ...$words  arguments
     * @return ?array{resource, resource} the process and what it says; null where none can be started
     */
    public static function begin(string $name, array $wish, bool $brief = false, string ...$words): ?array
    {
        $pipes = [];
        $process = proc_open([...self::command($name, $brief), ...array_values($words)], [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
        if (! is_resource($process)) {
            return null;
        }
        fwrite($pipes[0], json_encode($wish, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION));
        fclose($pipes[0]);

        return [$process, $pipes[1]];
    }
}
