<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** A named part of a source. */
final readonly class Chapter
{
    /** @param  float  $starts  seconds of movie time */
    public function __construct(public float $starts, public string $title)
    {
    }

    /** @return array{starts: float, title: string} */
    public function toArray(): array
    {
        return ['starts' => round($this->starts, 6), 'title' => $this->title];
    }
}
