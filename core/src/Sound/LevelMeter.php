<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** Measures peak and mean level over all channels together, block by block. */
final class LevelMeter
{
    private float $peak = 0.0;

    private float $energy = 0.0;

    private int $samples = 0;

    /** @throws LibraryMissing */
    public function measure(Block $block): void
    {
        $this->peak = max($this->peak, VectorMath::get()->peak($block->buffer, $block->first(), $block->samples()));
        $this->energy += VectorMath::get()->energy($block->buffer, $block->first(), $block->samples());
        $this->samples += $block->samples();
    }

    public function level(): Level
    {
        return new Level($this->peak, $this->samples === 0 ? 0.0 : sqrt($this->energy / $this->samples));
    }

    /** How many were measured, over all channels. */
    public function samples(): int
    {
        return $this->samples;
    }

    /**
     * Takes in what another meter has found.
     *
     * @param  int  $samples  over all channels
     */
    public function join(Level $level, int $samples): void
    {
        $this->peak = max($this->peak, $level->peak);
        $this->energy += $level->rms ** 2 * $samples;
        $this->samples += $samples;
    }
}
