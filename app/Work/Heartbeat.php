<?php

declare(strict_types=1);

namespace App\Work;

/** Gives a sign of this process again and again while it does something that may take hours. */
final class Heartbeat
{
    private const SECONDS_BETWEEN = 20;

    /**
     * @template T
     *
     * @param  callable(): void  $sign  what it throws goes unheard: the next sign comes soon
     * @param  callable(): T  $do
     * @return T
     */
    public static function during(callable $sign, callable $do): mixed
    {
        pcntl_signal(SIGALRM, function () use ($sign): void {
            try {
                $sign();
            } catch (\Throwable) {
                // The database is busy.
            }
            pcntl_alarm(self::SECONDS_BETWEEN);
        });
        pcntl_alarm(self::SECONDS_BETWEEN);
        try {
            return $do();
        } finally {
            pcntl_alarm(0);
            pcntl_signal(SIGALRM, SIG_DFL);
        }
    }
}
