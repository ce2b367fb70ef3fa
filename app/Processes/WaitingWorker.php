<?php

declare(strict_types=1);

namespace App\Processes;

use Illuminate\Queue\Worker;
use Illuminate\Queue\WorkerOptions;

/** A worker that waits for a bell where others ask again and again. */
final class WaitingWorker extends Worker
{
    /** Seconds after which it asks all the same. */
    private const SECONDS = 15.0;

    /** Seconds between two questions where nobody can hear the bell. */
    private const MOMENT = 0.2;

    private ?QueueSignal $bell = null;

    private string $waitsFor = '';

    /** @return int */
    public function daemon($connectionName, $queue, WorkerOptions $options)
    {
        $this->waitsFor = $queue;
        $this->bell = app(QueueSignal::class);
        $this->bell->listen();

        return parent::daemon($connectionName, $queue, $options);
    }

    /**
     * @param  int|float  $seconds
     * @return void
     */
    public function sleep($seconds)
    {
        if (! $this->shouldQuit) {
            $this->bell === null ? parent::sleep($seconds) : $this->bell->wait($this->waitsFor, self::SECONDS, self::MOMENT);
        }
    }
}
