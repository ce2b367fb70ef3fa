<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Json\PathText;

/** How the scripts in `bin/` are begun: native calls allowed, nothing but their own words on their outputs, memory bounded. */
final class CoreScript
{
    /** What the core needs of PHP, where it is not built in. Whatever else is set up on this machine only takes time to begin. */
    private const EXTENSIONS = ['ctype', 'ffi', 'intl', 'mbstring', 'pcntl', 'posix', 'simplexml', 'zlib'];

    private const OPTIONS = ['-d', 'memory_limit=192M', '-d', 'ffi.enable=1', '-d', 'display_errors=0', '-d', 'log_errors=1'];

    /** The tracing compiler does its own optimizing, of what is run often only. */
    private const COMPILER = ['-d', 'opcache.enable_cli=1', '-d', 'opcache.optimization_level=0', '-d', 'opcache.jit=tracing', '-d',
        'opcache.jit_buffer_size=16M'];

    /** Whoever has work for a second or two only takes what was read of the scripts before, and compiles nothing. */
    private const READER = ['-d', 'opcache.enable_cli=1', '-d', 'opcache.file_cache_only=1', '-d', 'opcache.jit=disable'];

    /**
     * @param  string  $name  without ending
     * @param  bool  $brief  whether it has work for a second or two only
     * @return list<string>
     */
    public static function command(string $name, bool $brief = false): array
    {
        return [...self::php($brief), dirname(__DIR__, 2)."/bin/$name.php"];
    }

    /**
     * What runs a PHP script of the core.
     *
     * @param  bool  $brief  whether it has work for a second or two only: compiling takes longer than it saves there
     * @return list<string>
     */
    public static function php(bool $brief = false): array
    {
        $folder = (string) ini_get('extension_dir');
        $isThere = fn (string $name): bool => is_file("$folder/$name.".PHP_SHLIB_SUFFIX);
        $command = [PHP_BINARY, '-n', '-d', "extension_dir=$folder"];
        // Reading a hundred scripts takes longer than most of what they do; PHP itself looks whether one has changed since.
        $kept = dirname(__DIR__, 2).'/compiled';
        $isKept = is_writable($kept);
        if ($isThere('opcache') && ($isKept || ! $brief)) {
            array_push($command, '-d', 'zend_extension=opcache', ...$isKept ? ['-d', "opcache.file_cache=$kept"] : [],
                ...$brief ? self::READER : self::COMPILER);
        }
        foreach (array_filter(self::EXTENSIONS, $isThere) as $name) {
            array_push($command, '-d', "extension=$name");
        }

        return [...$command, ...self::OPTIONS];
    }

    /**
     * Begins a script that reads one JSON value.
     *
     * @param  array<array-key, mixed>  $asked  what it reads
     * @param  ?string  $log  path of a file for what it says of its own troubles; null where nobody keeps that
     * @param  bool  $brief  whether it has work for a second or two only
     * @param  string  ...$words  arguments
     * @return ?array{resource, resource} the process and what it says; null where none can be started
     */
    public static function begin(string $name, array $asked, ?string $log = null, bool $brief = false, string ...$words): ?array
    {
        $pipes = [];
        $process = proc_open([...self::command($name, $brief), ...array_values($words)],
            [['pipe', 'r'], ['pipe', 'w'], ['file', $log ?? '/dev/null', 'a']], $pipes);
        if (! is_resource($process)) {
            return null;
        }
        fwrite($pipes[0],
            json_encode(PathText::all($asked),
                JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION));
        fclose($pipes[0]);

        return [$process, $pipes[1]];
    }
}
