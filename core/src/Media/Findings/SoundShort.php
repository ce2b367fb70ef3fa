<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** The sound ends before the picture does. */
final readonly class SoundShort implements FindingKind
{
    public function __construct(public int $track, public float $seconds) {}
}
