<?php

declare(strict_types=1);

namespace Octavox\Bench;

use Octavox\Core\Make\Phase;
use Octavox\Core\Make\Progress;

/** Notes when a delivery goes from making to flushing to verifying. */
final class Stopwatch implements Progress
{
    private int $began;

    private ?int $flushing = null;

    private ?int $verifying = null;

    public function __construct()
    {
        $this->began = (int) hrtime(true);
    }

    public function reached(Phase $phase, int $done, int $of): void
    {
        if ($phase === Phase::Flushing) {
            $this->flushing ??= (int) hrtime(true);
        }
        if ($phase === Phase::Verifying) {
            $this->verifying ??= (int) hrtime(true);
        }
    }

    /** Seconds until everything was handed to the system. */
    public function making(): float
    {
        return (($this->flushing ?? $this->began) - $this->began) / 1e9;
    }

    /** Seconds until everything was on the disk. */
    public function flushing(): float
    {
        return (($this->verifying ?? $this->began) - ($this->flushing ?? $this->began)) / 1e9;
    }
}
