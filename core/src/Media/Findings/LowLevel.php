<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Its level is low. */
final readonly class LowLevel implements FindingKind
{
    /** @param  float  $peak  dBFS */
    public function __construct(public int $track, public float $peak, public ?float $lufs = null) {}
}
