<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * Float samples → 32-bit whole numbers whose lower bits hold the sample, as lossless encoders take them.
 * The samples must be rounded to the width already; full scale does not overflow then.
 */
final class WholeNumbers
{
    private readonly SampleRoom $room;

    /** @param  int  $bits  of one sample, 4 to 24 */
    public function __construct(private readonly int $bits)
    {
        $this->room = new SampleRoom;
    }

    /** Good until the next call; scales the block itself. */
    public function of(Block $block): \FFI\CData
    {
        VectorMath::get()->scale($block->buffer, $block->first(), $block->samples(), 2.0 ** ($this->bits - 32));

        return $this->room->to32($block->buffer, $block->first(), $block->samples());
    }
}
