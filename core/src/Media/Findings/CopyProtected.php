<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** It is protected against copying. */
final readonly class CopyProtected implements FindingKind
{
    public function __construct(public ?int $track = null) {}
}
