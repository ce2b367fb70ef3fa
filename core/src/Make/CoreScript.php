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
}
