<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** It clips. */
final readonly class Clipped implements FindingKind
{
    public function __construct(public int $track, public int $times, public string $at, public string $later) {}
}
