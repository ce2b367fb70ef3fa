<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Gathers sound until there are as many frames as an encoder takes at once, interleaved. */
final class FrameRoom
{
    public readonly FloatBuffer $buffer;

    private int $held = 0;

    /**
     * @param  int  $frames  that are taken at once
     * @param  int  $ahead  frames before them, which are the encoder's own
     *
     * @throws BlockTooLarge
     */
    public function __construct(private readonly int $frames, private readonly int $channels, private readonly int $ahead = 0)
    {
        $this->buffer = new FloatBuffer(($ahead + $frames) * $channels);
    }

    /** @return iterable<int> how many frames there are, each time it is full; it is filled anew once the next is asked for */
    public function take(Block $block): iterable
    {
        for ($from = 0; $from < $block->frames; $from += $count) {
            $count = min($this->frames - $this->held, $block->frames - $from);
            $this->buffer->copy(($this->ahead + $this->held) * $this->channels, $block->buffer, $block->first() + $from * $this->channels,
                $count * $this->channels);
            $this->held += $count;
            if ($this->held === $this->frames) {
                $this->held = 0;
                yield $this->frames;
            }
        }
    }

    /** Fills up with silence. */
    public function fill(): void
    {
        $this->buffer->silence(($this->ahead + $this->held) * $this->channels, ($this->frames - $this->held) * $this->channels);
        $this->held = 0;
    }
}
