<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Both sides are the same. */
final readonly class IdenticalSides implements FindingKind
{
    public function __construct(public int $track) {}
}
