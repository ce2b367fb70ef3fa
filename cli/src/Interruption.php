<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** Whether somebody wants the command to stop: Ctrl-C, a closed terminal, a polite kill. The second time it stops at once. */
final class Interruption
{
    /** What shells say of a program that a signal ended: 128 and the number of the signal. */
    private const STATUS = 128;

    private int $signal = 0;

    /** From here on a signal is noted. */
    public static function awaited(): self
    {
        $self = new self;
        if (function_exists('pcntl_signal')) {
            pcntl_async_signals(true);
            foreach ([SIGINT, SIGTERM, SIGHUP] as $signal) {
                pcntl_signal($signal, $self->note(...), false);
            }
        }

        return $self;
    }

    public function isWanted(): bool
    {
        return $this->signal !== 0;
    }

    /** Exit status; 0 where nobody wants to stop. */
    public function status(): int
    {
        return $this->signal === 0 ? 0 : self::STATUS + $this->signal;
    }

    /** Sleeps, but not longer than until somebody wants to stop. */
    public function pause(float $seconds): void
    {
        $until = microtime(true) + $seconds;
        while (! $this->isWanted() && ($left = $until - microtime(true)) > 0) {
            usleep((int) (1e6 * min(0.1, $left)));
        }
    }

    private function note(int $signal): void
    {
        if ($this->signal !== 0) {
            exit($this->status());
        }
        $this->signal = $signal;
    }
}
