<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** One side is flipped in polarity. */
final readonly class Flipped implements FindingKind
{
    public function __construct(public int $track) {}
}
