<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** Which packets are copied of a track that is cut without encoding it anew. All counts are samples of the coded sound. */
final readonly class KeptCut
{
    /**
     * @param  int  $from  where the first packet begins
     * @param  int  $until  where the last one ends
     * @param  int  $skip  samples at the begin that the result does not present
     * @param  int  $samples  that the result presents
     * @param  int  $early  by how many samples the result begins before the mark
     * @param  int  $late  by how many samples it ends after the mark
     */
    public function __construct(public int $from, public int $until, public int $skip, public int $samples, public int $early, public int $late)
    {
    }

    /** @return array<string, int> */
    public function toArray(): array
    {
        return get_object_vars($this);
    }

    /** @param  array<array-key, mixed>  $facts */
    public static function fromArray(array $facts): self
    {
        $number = fn (string $key): int => is_int($facts[$key] ?? null) ? $facts[$key] : 0;

        return new self($number('from'), $number('until'), $number('skip'), $number('samples'), $number('early'), $number('late'));
    }

    public function isExact(): bool
    {
        return $this->early === 0 && $this->late === 0;
    }
}
