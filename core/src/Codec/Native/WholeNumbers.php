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
    /** SF_FORMAT_PCM_32 | SF_ENDIAN_LITTLE */
    private const FORMAT = 0x10000004;

    private readonly SampleFile $file;

    private \FFI\CData $room;

    private int $capacity = 0;

    /** @param  int  $bits  of one sample, 4 to 24 */
    public function __construct(private readonly int $bits)
    {
        $this->file = SampleFile::wholeWriter(self::FORMAT, 1);
        $this->room = \FFI::new('int32_t[1]');
    }

    /** Of samples that are rounded to the width and within its range. Good until the next call; scales the block itself. */
    public function of(Block $block): \FFI\CData
    {
        $count = $block->samples();
        if ($count > $this->capacity) {
            $this->room = \FFI::new("int32_t[$count]");
            $this->capacity = $count;
        }
        VectorMath::get()->scale($block->buffer, $block->first(), $count, 2.0 ** ($this->bits - 1));
        \FFI::memcpy($this->room, $this->file->writeFloats($block->buffer, $block->first(), $count), 4 * $count);

        return $this->room;
    }
}
