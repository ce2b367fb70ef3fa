<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** A named part of a source or of a result. */
final readonly class Chapter
{
    /** @param  float  $starts  seconds from the begin, of movie time in a video */
    public function __construct(public float $starts, public string $title) {}

    /** @return array{starts: float, title: string} */
    public function toArray(): array
    {
        return ['starts' => round($this->starts, 6), 'title' => $this->title];
    }
}
