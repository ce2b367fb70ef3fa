<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Bytes\Native\FolderEvents;

/**
 * Changes in folders as the system tells them: files that come, go, are renamed or written. What another machine changes on a network drive
 * is not told, so whoever waits here looks for himself now and then.
 */
final class FolderWatch
{
    /** sys/inotify.h: IN_Q_OVERFLOW, IN_IGNORED */
    private const LOST = 0x4000;

    private const GONE = 0x8000;

    /** struct inotify_event of sys/inotify.h, without its name */
    private const HEAD_BYTES = 16;

    private readonly FolderEvents $events;

    /** @var array<int, string> folders by the number of their watch */
    private array $folders = [];

    /** Whether the system had more to tell than it could keep: anything may have changed. */
    private bool $hasLost = false;

    public function __construct()
    {
        $this->events = new FolderEvents;
    }

    /** Whether changes in this folder, not in those below it, are told from now on. */
    public function watch(string $folder): bool
    {
        $number = $this->events->watch($folder);
        if ($number >= 0) {
            $this->folders[$number] = $folder;
        }

        return $number >= 0;
    }

    /**
     * Waits until something changes or the time is over; a signal ends it too.
     *
     * @param  float  $seconds  0: what has changed by now
     * @return list<string> paths of what was touched; of a folder where it cannot be said more exactly
     */
    public function wait(float $seconds): array
    {
        $events = $this->events->wait($seconds);
        $touched = [];
        for ($at = 0; $at + self::HEAD_BYTES <= strlen($events); $at += self::HEAD_BYTES + $head['length']) {
            /** @var array{watch: int, mask: int, length: int} $head */
            $head = unpack('lwatch/Lmask/Lcookie/Llength', $events, $at);
            $this->hasLost = $this->hasLost || ($head['mask'] & self::LOST) !== 0;
            $folder = $this->folders[$head['watch']] ?? null;
            if ($folder !== null) {
                $name = rtrim(substr($events, $at + self::HEAD_BYTES, $head['length']), "\0");
                $touched[$name === '' ? $folder : "$folder/$name"] = true;
            }
            if (($head['mask'] & self::GONE) !== 0) {
                unset($this->folders[$head['watch']]);
            }
        }

        return array_map(strval(...), array_keys($touched));
    }

    /** Whether the system forgot to tell something since this was last asked. */
    public function hasLost(): bool
    {
        [$lost, $this->hasLost] = [$this->hasLost, false];

        return $lost;
    }
}
