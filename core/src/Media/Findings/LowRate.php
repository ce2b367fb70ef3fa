<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** So little bit rate that it can be heard. */
final readonly class LowRate implements FindingKind
{
    public function __construct(public int $track, public float $kbps) {}
}
