<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** Lets sound rise at its begin and fall at its end, along a quarter of a sine squared. */
final class Fade implements Stage
{
    private int $at = 0;

    private ?FloatBuffer $room = null;

    /**
     * @param  int  $in  frames
     * @param  int  $out  frames
     * @param  int  $total  frames of the whole sound
     */
    public function __construct(private readonly int $in, private readonly int $out, private readonly int $total) {}

    /** Level at a frame, 0 to 1; where both fades meet, both count. */
    public function level(int $frame): float
    {
        $rise = $this->in > 0 && $frame < $this->in ? sin(M_PI_2 * ($frame + 0.5) / $this->in) ** 2 : 1.0;
        $left = $this->total - 1 - $frame;
        $fall = $this->out > 0 && $left < $this->out ? sin(M_PI_2 * (max(0, $left) + 0.5) / $this->out) ** 2 : 1.0;

        return $rise * $fall;
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(Block $block): iterable
    {
        $begin = $this->at;
        $this->at += $block->frames;
        if ($begin >= $this->in && $this->at <= $this->total - $this->out) {
            yield $block;

            return;
        }
        if ($this->room === null || $this->room->capacity < $block->samples()) {
            $this->room = new FloatBuffer($block->samples());
        }
        $this->room->copy(0, $block->buffer, $block->first(), $block->samples());
        for ($frame = 0; $frame < $block->frames; $frame++) {
            $level = $this->level($begin + $frame);
            if ($level !== 1.0) {
                VectorMath::get()->scale($this->room, $frame * $block->channels, $block->channels, $level);
            }
        }
        yield new Block($this->room, $block->frames, $block->channels);
    }

    public function finish(): iterable
    {
        return [];
    }
}
