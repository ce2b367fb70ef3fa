<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Parallel\ForkedTask;

/** A sum over many bytes; where there is a second processor it is found there while something else is done. */
final class Summing
{
    /** Bytes from which on it is worth a second process. */
    public const LONG_BYTES = 16_777_216;

    private const LATER = 10;

    private ?string $sum = null;

    /** @param  \Closure(callable(): void): string  $work */
    private function __construct(private readonly \Closure $work, private readonly ?ForkedTask $task) {}

    /**
     * @param  \Closure(callable(): void): string  $work  finds the sum, and calls what it gets now and then while it is at work
     * @param  int  $bytes  that it goes over, about
     */
    public static function begin(\Closure $work, int $bytes): self
    {
        return new self($work, $bytes < self::LONG_BYTES ? null : ForkedTask::begin(function () use ($work): array {
            // Whoever copies meanwhile comes first.
            proc_nice(self::LATER);

            return ['sum' => $work(fn () => null)];
        }));
    }

    /**
     * A sum that is known already, or one that is being found.
     *
     * @param  callable(): void  $sign
     */
    public static function compute(string|self $sum, callable $sign): string
    {
        return $sum instanceof self ? $sum->result($sign) : $sum;
    }

    /** @param  callable(): void  $sign  told now and then that it is still at work */
    public function result(callable $sign): string
    {
        if ($this->sum === null) {
            $found = $this->task?->result($sign)['sum'] ?? null;
            $this->sum = is_string($found) ? $found : ($this->work)($sign);
        }

        return $this->sum;
    }
}
