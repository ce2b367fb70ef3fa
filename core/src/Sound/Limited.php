<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** Sound that goes into an encoder whose arithmetic does not bear what is far beyond full scale: it is cut there, as every encoder does. */
final class Limited
{
    /**
     * @param  float  $most  of full scale
     *
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    public static function to(float $most, Block $block): Block
    {
        if (VectorMath::get()->peak($block->buffer, $block->first(), $block->samples()) <= $most) {
            return $block;
        }
        $samples = array_map(fn (mixed $sample): float => is_float($sample) ? max(-$most, min($most, $sample)) : 0.0,
            unpack('f*', $block->bytes()) ?: []);

        return new Block(FloatBuffer::fromBytes(pack('f*', ...$samples)), $block->frames, $block->channels);
    }
}
