<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\SampleForms;

/**
 * Float samples → 32-bit whole numbers whose lower bits hold the sample, as lossless encoders take them.
 * The samples must be rounded to the width already; full scale does not overflow then.
 */
final class WholeNumbers
{
    private \FFI\CData $room;

    private int $capacity = 1;

    /** @param  int  $bits  of one sample, 4 to 24 */
    public function __construct(private readonly int $bits)
    {
        $this->room = \FFI::new('int32_t[1]');
    }

    /** Of samples that are rounded to the width and within its range. Good until the next call. */
    public function of(Block $block): \FFI\CData
    {
        $count = $block->samples();
        if ($count > $this->capacity) {
            $this->room = \FFI::new("int32_t[$count]");
            $this->capacity = $count;
        }
        SampleForms::get()->toNumbers($block->buffer, $block->first(), $count, $this->bits, \FFI::addr($this->room[0]));

        return $this->room;
    }
}
