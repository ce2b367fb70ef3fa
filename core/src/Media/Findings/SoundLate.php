<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** The sound begins after the picture. */
final readonly class SoundLate implements FindingKind
{
    public function __construct(public int $track, public float $seconds) {}
}
