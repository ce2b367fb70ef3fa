<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** Times of decoding on one line: where they go back, another recording was joined, and the line goes on. */
final class RisingTimes
{
    private int $offset = 0;

    private ?int $last = null;

    private int $bases = 0;

    /**
     * @param  int  $back  ticks that times may go back without being those of another recording
     * @param  int  $step  ticks of one picture, before that is known
     */
    public function __construct(private readonly int $back, private int $step) {}

    public function at(int $time): int
    {
        $at = $time + $this->offset;
        if ($this->last !== null && $at < $this->last - $this->back) {
            $this->offset += $this->last + $this->step - $at;
            $at = $this->last + $this->step;
            $this->bases++;
        } elseif ($this->last !== null && $at > $this->last) {
            $this->step = min($at - $this->last, max(1, $this->back));
        }
        $this->last = max($this->last ?? $at, $at);

        return $at;
    }

    /** How often the times began anew. */
    public function bases(): int
    {
        return $this->bases;
    }
}
