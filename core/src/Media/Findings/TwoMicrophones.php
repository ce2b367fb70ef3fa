<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Left and right are two microphones. */
final readonly class TwoMicrophones implements FindingKind
{
    /**
     * @param  float  $sure  0 to 1
     * @param  float  $alike  correlation
     * @param  float  $gap  dB by which the left is louder
     * @param  float  $unsteady  dB
     * @param  float  $timbre  dB
     */
    public function __construct(
        public int $track,
        public float $sure,
        public float $alike,
        public float $gap,
        public float $unsteady,
        public float $timbre,
    ) {}
}
