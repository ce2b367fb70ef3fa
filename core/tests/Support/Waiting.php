<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** Waits for what comes, however long that takes on a busy machine; only what does not come at all takes all of the time. */
final class Waiting
{
    private const MOST_LOOKS = 3000;

    private const MICROSECONDS_BETWEEN = 20_000;

    /**
     * @param  callable(): bool  $is
     * @return bool whether it came
     */
    public static function until(callable $is): bool
    {
        for ($looks = 0; $looks < self::MOST_LOOKS && ! $is(); $looks++) {
            usleep(self::MICROSECONDS_BETWEEN);
        }

        return $is();
    }
}
