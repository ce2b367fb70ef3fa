<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

/** A stretch of a title that is played without a break: a cell of the disc, at its place in the order of playing. */
final readonly class DiscCell
{
    /**
     * @param  list<array{int, int}>  $sectors  first and last ones, counted from the start of the title set's sound and pictures; those of
     *          other angles are left out
     * @param  int  $last  the sector in which its last unit begins
     * @param  float  $seconds  as the tables say
     * @param  ?int  $chapter  number of the chapter that begins with it, from 1
     */
    public function __construct(public array $sectors, private int $last, public float $seconds, public ?int $chapter) {}

    /** Sectors of its own before its last unit; -1 where that lies in none of them. */
    public function lastUnit(): int
    {
        $before = 0;
        foreach ($this->sectors as [$first, $last]) {
            if ($this->last >= $first && $this->last <= $last) {
                return $before + $this->last - $first;
            }
            $before += $last - $first + 1;
        }

        return -1;
    }
}
