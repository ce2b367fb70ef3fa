<?php

declare(strict_types=1);

namespace App\Processes;

use App\Files\Folder;
use Octavox\Core\Bytes\FolderWatch;

/** Tells the workers of a queue that there is something to do, so that nobody asks the database again and again. */
final class QueueSignal
{
    private ?FolderWatch $events = null;

    private bool $isHeard = false;

    public function ring(string $queue): void
    {
        @touch($this->folder().'/'.$queue);
    }

    /** Whoever hears it before he looks misses nothing. */
    public function listen(): void
    {
        $this->events ??= new FolderWatch;
        $this->isHeard = $this->isHeard || $this->events->watch($this->folder());
    }

    /**
     * Waits until it rings for one of the queues or the time is over; where the system does not tell of it, no longer than a moment.
     *
     * @param  string  $queues  separated by commas
     * @param  float  $moment  seconds
     * @return bool whether it rang
     */
    public function wait(string $queues, float $seconds, float $moment): bool
    {
        $this->listen();
        $paths = array_map(fn (string $queue): string => $this->folder().'/'.$queue, explode(',', $queues));
        $until = microtime(true) + ($this->isHeard ? $seconds : $moment);
        while (($left = $until - microtime(true)) > 0) {
            $begun = microtime(true);
            $rung = $this->events?->wait($left) ?? [];
            if (array_intersect($paths, $rung) !== []) {
                return true;
            }
            // Nothing came and the time is not over: a signal did.
            if ($rung === [] && microtime(true) - $begun < $left) {
                return false;
            }
        }

        return false;
    }

    private function folder(): string
    {
        $folder = config()->string('octavox.home').'/bells';
        Folder::ready($folder);

        return $folder;
    }
}
