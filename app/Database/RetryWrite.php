<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Database\QueryException;

/** What must be written down is tried again while the database is busy or the drive full. */
final class RetryWrite
{
    private const TRIES = 20;

    private const MICROSECONDS_BETWEEN = 500_000;

    /**
     * @param  callable(): mixed  $write
     *
     * @throws QueryException where it never could
     */
    public static function write(callable $write): void
    {
        for ($try = 1; ; $try++) {
            try {
                $write();

                return;
            } catch (QueryException $busy) {
                if ($try === self::TRIES) {
                    throw $busy;
                }
                usleep(self::MICROSECONDS_BETWEEN);
            }
        }
    }
}
