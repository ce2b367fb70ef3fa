<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/** The calls of Linux that PHP has no function for. Where they cannot be made, everything just takes longer. */
final class System
{
    private const CALLS = 'int open(const char *path, int flags); int close(int handle); int sync_file_range(int handle, int64_t from, int64_t count, unsigned int flags);'
        .' long copy_file_range(int from, int64_t *offset, int to, int64_t *at, size_t count, unsigned int flags); int prctl(int option, unsigned long value);';

    private static ?\FFI $calls = null;

    private static bool $asked = false;

    /** Null on another system. */
    public static function calls(): ?\FFI
    {
        if (! self::$asked) {
            self::$asked = true;
            try {
                self::$calls = \FFI::cdef(self::CALLS);
            } catch (\FFI\Exception) {
                // Another system.
            }
        }

        return self::$calls;
    }
}
