<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** One EBML element: its identity and where its body stands. RFC 8794, 6. */
final readonly class Element
{
    /** @param  bool  $open  whether its length is not known and the end is that of what holds it */
    public function __construct(public int $id, public int $at, public int $bodyAt, public int $end, public bool $open = false) {}

    public function length(): int
    {
        return $this->end - $this->bodyAt;
    }
}
