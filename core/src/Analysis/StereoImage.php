<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

/** How the two sides of a stereo track relate. */
final readonly class StereoImage
{
    /**
     * @param  float  $correlation  of the waves, −1 to 1
     * @param  float  $difference  energy of left minus right as a part of the energy of both, 0 where they are the same
     * @param  float  $gap  dB by which the left side is louder
     * @param  float  $unsteady  dB by which that gap strays over time
     * @param  float  $treble  dB by which the left side has more treble
     * @param  float  $bass  dB by which the left side has more bass
     * @param  int  $windows  how many stretches were compared
     */
    public function __construct(public float $correlation, public float $difference, public float $gap, public float $unsteady,
        public float $treble, public float $bass, public int $windows) {}

    /**
     * How sure it is that two microphones stand on the two sides and no stereo image, 0 to 1. Two microphones hear the same voice
     * at other times and in other rooms, so their waves are not alike; and their levels, the wandering of these and their spectra differ,
     * which the sides of one image, mixed or recorded as a pair, do much less.
     */
    public function twoMicrophones(): float
    {
        if ($this->windows < 8 || abs($this->correlation) > 0.75) {
            return 0.0;
        }
        $evidence = 2.2 * (0.35 - abs($this->correlation)) / 0.35
            + 1.1 * min(abs($this->gap) / 4.0, 2.0)
            + 1.1 * min($this->unsteady / 4.0, 2.0)
            + 1.1 * min(max(abs($this->treble), abs($this->bass)) / 4.0, 2.0)
            - 4.4;

        return 1 / (1 + exp(-$evidence));
    }
}
