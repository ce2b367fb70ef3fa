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
    private const STEP = 67_108_864;

    /** linux/fs.h: SYNC_FILE_RANGE_WRITE, begins and does not wait */
    private const BEGIN = 2;

    /** Null until it is needed, as most files stay small, and where it cannot be had. */
    private ?Handle $handle = null;

    private bool $opened = false;

    private int $asked = 0;

    public function __construct(private readonly string $path) {}

    /** @param  int  $written  bytes that the file has been given */
    public function reached(int $written): void
    {
        if ($written - $this->asked >= self::STEP) {
            $this->begin($written);
        }
    }

    /** Begins with all that was written since it was asked last. */
    public function begin(int $written): void
    {
        if (! $this->opened) {
            $this->opened = true;
            $this->handle = Handle::open($this->path, Handle::WRITING);
        }
        if ($this->handle !== null) {
            System::calls()?->sync_file_range($this->handle->number, $this->asked, $written - $this->asked, self::BEGIN);
        }
        $this->asked = $written;
    }
}
