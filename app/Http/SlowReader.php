<?php

declare(strict_types=1);

namespace App\Http;

/**
 * Writes to whoever asked, and tells when it is of no use to go on: nobody is there any more, or so little is read that one process of the
 * web server would be held for hours. (PHP's own server ends what takes nothing at all for ten seconds.) Browsers ask again from where
 * they were.
 */
final class SlowReader
{
    /** A telephone line of 32 kbit/s. */
    private const LEAST_BYTES_A_SECOND = 4_000;

    private const SECONDS_TO_JUDGE = 30.0;

    private readonly float $since;

    private int $written = 0;

    /** @param  ?\Closure(): float  $clock  seconds; the machine's own if none is given */
    public function __construct(private readonly ?\Closure $clock = null)
    {
        $this->since = $this->now();
    }

    /** @return bool whether it is of use to go on */
    public function write(string $bytes): bool
    {
        echo $bytes;
        flush();
        $this->written += strlen($bytes);
        $taken = $this->now() - $this->since;

        return ! connection_aborted() && ($taken < self::SECONDS_TO_JUDGE || $this->written >= self::LEAST_BYTES_A_SECOND * $taken);
    }

    private function now(): float
    {
        return $this->clock === null ? hrtime(true) / 1e9 : ($this->clock)();
    }
}
