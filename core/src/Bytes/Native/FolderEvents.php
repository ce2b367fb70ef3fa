<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/** What the system tells of changes in folders, as bytes: inotify(7). */
final class FolderEvents
{
    /** sys/inotify.h: IN_NONBLOCK | IN_CLOEXEC */
    private const FLAGS = 0x80800;

    /** sys/inotify.h: IN_MODIFY, ATTRIB, CLOSE_WRITE, MOVED_FROM, MOVED_TO, CREATE, DELETE, DELETE_SELF, MOVE_SELF; IN_ONLYDIR */
    private const MASK = 0x2 | 0x4 | 0x8 | 0x40 | 0x80 | 0x100 | 0x200 | 0x400 | 0x800 | 0x1000000;

    /** poll.h */
    private const POLLIN = 1;

    private const ROOM_BYTES = 65536;

    private readonly int $handle;

    private readonly ?\FFI\CData $room;

    public function __construct()
    {
        $this->handle = (int) (System::calls()?->inotify_init1(self::FLAGS) ?? -1);
        $this->room = System::calls()?->new('char['.self::ROOM_BYTES.']');
    }

    public function __destruct()
    {
        if ($this->handle >= 0) {
            System::calls()?->close($this->handle);
        }
    }

    /** Number of the watch of a folder; below 0 where it cannot be watched. */
    public function watch(string $folder): int
    {
        return $this->handle < 0 ? -1 : (int) (System::calls()?->inotify_add_watch($this->handle, $folder, self::MASK) ?? -1);
    }

    /**
     * Waits until something changes, a signal comes or the time is over.
     *
     * @return string records `struct inotify_event` of sys/inotify.h; none where nothing changed
     */
    public function wait(float $seconds): string
    {
        $calls = System::calls();
        $poll = $this->handle < 0 ? null : $calls?->new('struct pollfd[1]');
        if ($calls === null || $poll === null || $this->room === null) {
            usleep((int) ($seconds * 1e6));

            return '';
        }
        $poll[0]->fd = $this->handle;
        $poll[0]->events = self::POLLIN;
        $events = '';
        if ((int) $calls->poll($poll, 1, (int) ceil($seconds * 1000)) > 0) {
            while (($bytes = (int) $calls->read($this->handle, $this->room, self::ROOM_BYTES)) > 0) {
                $events .= \FFI::string($this->room, $bytes);
            }
        }

        return $events;
    }
}
