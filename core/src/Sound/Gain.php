<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** Makes everything louder or softer by one factor. */
final class Gain implements Stage
{
    private ?FloatBuffer $room = null;

    public function __construct(private readonly float $factor) {}

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(Block $block): iterable
    {
        // The block's own buffer may be a decoder's and still be needed there.
        if ($this->room === null || $this->room->capacity < $block->samples()) {
            $this->room = new FloatBuffer($block->samples());
        }
        $this->room->copy(0, $block->buffer, $block->first(), $block->samples());
        VectorMath::get()->scale($this->room, 0, $block->samples(), $this->factor);
        yield new Block($this->room, $block->frames, $block->channels);
    }

    public function finish(): iterable
    {
        return [];
    }
}
