<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** A stretch of a sound, in samples from where the sound begins. */
final readonly class Piece
{
    /** @param  int  $until  the first sample that no longer belongs to it */
    public function __construct(public int $from, public int $until) {}

    public function length(): int
    {
        return $this->until - $this->from;
    }
}
