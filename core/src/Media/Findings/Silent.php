<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** It is silent from start to end. */
final readonly class Silent implements FindingKind
{
    public function __construct(public int $track) {}
}
