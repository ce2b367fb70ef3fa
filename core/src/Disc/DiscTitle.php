<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

/** One title of a video disc, as its tables describe it. */
final readonly class DiscTitle
{
    /**
     * @param  int  $number  from 1, as the disc counts
     * @param  int  $set  number of its title set
     * @param  int  $angles  how many there are; the first is taken
     * @param  list<DiscCell>  $cells  in the order of playing
     * @param  list<DiscSound>  $sounds
     */
    public function __construct(public int $number, public int $set, public int $angles, public array $cells, public array $sounds) {}

    public function seconds(): float
    {
        return array_sum(array_map(fn (DiscCell $cell): float => $cell->seconds, $this->cells));
    }

    public function chapters(): int
    {
        return count(array_filter($this->cells, fn (DiscCell $cell): bool => $cell->chapter !== null));
    }
}
