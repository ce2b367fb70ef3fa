<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/**
 * Asks the system to begin writing to the disk what a file has been given so far (Linux, sync_file_range(2)), so that little is left
 * when it must all be there. It promises nothing: where it cannot be asked, the end just takes longer.
 */
final class Writeback
{
    /** Bytes after which it is asked again. */
    private const STEP = 16_777_216;

    /** fcntl.h: O_WRONLY | O_CLOEXEC */
    private const OPEN = 0x80001;

    /** linux/fs.h: SYNC_FILE_RANGE_WRITE, begins and does not wait */
    private const BEGIN = 2;

    private static ?\FFI $system = null;

    /** Null until it is needed: most files stay small. */
    private ?int $handle = null;

    private int $asked = 0;

    public function __construct(private readonly string $path)
    {
    }

    public function __destruct()
    {
        if ($this->handle !== null && $this->handle >= 0) {
            self::$system?->close($this->handle);
        }
    }

    /** @param  int  $written  bytes that the file has been given */
    public function reached(int $written): void
    {
        if ($written - $this->asked < self::STEP) {
            return;
        }
        $this->handle ??= $this->open();
        if ($this->handle >= 0) {
            self::$system?->sync_file_range($this->handle, $this->asked, $written - $this->asked, self::BEGIN);
        }
        $this->asked = $written;
    }

    /** Negative where it cannot be. */
    private function open(): int
    {
        try {
            self::$system ??= \FFI::cdef('int open(const char *path, int flags); int sync_file_range(int handle, int64_t from, int64_t count, unsigned int flags); int close(int handle);');

            return (int) self::$system->open($this->path, self::OPEN);
        } catch (\FFI\Exception) {
            // Another system.
            return -1;
        }
    }
}
