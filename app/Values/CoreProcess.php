<?php

declare(strict_types=1);

namespace App\Values;

use Symfony\Component\Process\Process;

/** A process of the heart, which may call native libraries where the application may not. */
final class CoreProcess
{
    private const OPTIONS = ['-d', 'memory_limit=192M', '-d', 'ffi.enable=1', '-d', 'display_errors=0', '-d', 'log_errors=0', '-d', 'opcache.enable_cli=1', '-d', 'opcache.jit=tracing', '-d', 'opcache.jit_buffer_size=16M'];

    /** @param  array<string, mixed>  $wish what the script reads from its standard input */
    public static function of(string $script, array $wish): Process
    {
        $process = new Process([PHP_BINARY, ...self::OPTIONS, base_path("core/bin/$script.php")]);
        $process->setInput(json_encode($wish, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE));

        return $process;
    }
}
