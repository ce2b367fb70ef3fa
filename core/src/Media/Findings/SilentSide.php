<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** One side is silent. */
final readonly class SilentSide implements FindingKind
{
    public function __construct(public int $track, public string $side, public string $good) {}
}
