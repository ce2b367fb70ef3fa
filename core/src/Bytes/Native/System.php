<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/**
 * The calls of Linux that PHP has no function for; places in memory are numbers. Where they cannot be made, everything just takes longer.
 */
final class System
{
    private const CALLS = 'struct part { intptr_t place; size_t count; };'
        .' int open(const char *path, int flags); int close(int handle); int sync_file_range(int handle, int64_t from, int64_t count, '
            .'unsigned int flags);'
        .' intptr_t mmap(intptr_t at, size_t count, int access, int flags, int handle, int64_t offset); int munmap(intptr_t at, size_t '
            .'count); int madvise(intptr_t at, size_t count, int advice);'
        .' long pwritev(int handle, const struct part *parts, int count, int64_t offset); int prctl(int option, unsigned long value);'
        .' struct pollfd { int fd; short events; short revents; }; int poll(struct pollfd *handles, unsigned long count, int milliseconds);'
        .' int inotify_init1(int flags); int inotify_add_watch(int handle, const char *path, uint32_t mask);'
        .' long read(int handle, char *room, size_t count);';

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
