<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** A named part of a source or of a result. */
final readonly class Chapter
{
    /**
     * @param  float  $starts  seconds from the start, of movie time in a video
     * @param  ?DiscTrack  $disc  what a disc says of it besides, where it is a track of one
     */
    public function __construct(public float $starts, public string $title, public ?DiscTrack $disc = null) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['starts' => round($this->starts, 6), 'title' => $this->title]
            + ($this->disc === null ? [] : ['disc' => $this->disc->toArray()]);
    }
}
