<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

/** What stretches of a sound took when they were compressed ({@see SizeTrial}). */
final readonly class TriedSizes
{
    /**
     * @param  float  $bits  that a sample of 16 bits takes where it is compressed without loss
     * @param  array<int, float>  $vorbis  what Vorbis took of the bit rates that it was asked for, by kbit/s, the lowest first
     */
    public function __construct(public float $bits, public array $vorbis = []) {}

    /** What Vorbis takes of a bit rate, as far as was tried; between two rates that were, by how far it is from each. */
    public function vorbisShare(float $kbps): ?float
    {
        $below = null;
        foreach ($this->vorbis as $rate => $share) {
            if ($rate >= $kbps) {
                return $below === null ? $share
                    : $below[1] + ($share - $below[1]) * log($kbps / $below[0]) / log($rate / $below[0]);
            }
            $below = [$rate, $share];
        }

        return $below[1] ?? null;
    }
}
