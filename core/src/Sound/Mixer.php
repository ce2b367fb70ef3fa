<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** Applies a mix to blocks: one matrix product a block. */
final class Mixer implements Stage
{
    private readonly FloatBuffer $gains;

    private ?FloatBuffer $room = null;

    /** @throws BlockTooLarge */
    public function __construct(private readonly Mix $mix)
    {
        $this->gains = FloatBuffer::fromBytes(pack('f*', ...array_merge(...$mix->gains)));
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(Block $block): iterable
    {
        $needed = $block->frames * $this->mix->outputs();
        if ($this->room === null || $this->room->capacity < $needed) {
            $this->room = new FloatBuffer($needed);
        }
        $from = $block->buffer;
        if ($block->offset > 0) {
            $from = new FloatBuffer($block->samples());
            $from->copy(0, $block->buffer, $block->first(), $block->samples());
        }
        VectorMath::get()->mix($from, $this->room, $block->frames, $this->gains, $this->mix->inputs(), $this->mix->outputs());
        yield new Block($this->room, $block->frames, $this->mix->outputs());
    }

    public function finish(): iterable
    {
        return [];
    }
}
