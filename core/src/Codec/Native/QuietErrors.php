<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/**
 * Libraries that write their complaints on the standard error of the process: what is wrong with a file is told in one sentence of ours.
 */
final class QuietErrors
{
    private const STANDARD_ERROR = 2;

    /** O_WRONLY (POSIX, fcntl.h) */
    private const FOR_WRITING = 1;

    private static ?\FFI $library = null;

    private static int $nowhere = -1;

    /**
     * @template T
     *
     * @param  callable(): T  $call
     * @return T
     *
     * @throws LibraryMissing
     */
    public static function during(callable $call): mixed
    {
        $library = self::$library ??= Library::open('
            int open(const char *path, int flags, ...);
            int dup(int handle);
            int dup2(int handle, int other);
            int close(int handle);
        ', ['libc.so.6'], 'libc6');
        if (self::$nowhere < 0) {
            self::$nowhere = $library->open('/dev/null', self::FOR_WRITING);
        }
        $own = $library->dup(self::STANDARD_ERROR);
        $library->dup2(self::$nowhere, self::STANDARD_ERROR);
        try {
            return $call();
        } finally {
            $library->dup2($own, self::STANDARD_ERROR);
            $library->close($own);
        }
    }
}
