<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Takes interleaved blocks, sets their channels apart and gives them to meters in runs of one length. */
final class Deinterleaver
{
    /** @var list<FloatBuffer> */
    private array $channels = [];

    private int $held = 0;

    private readonly int $room;

    /**
     * @param  list<PlanarMeter>  $meters
     *
     * @throws BlockTooLarge
     */
    public function __construct(int $channels, private readonly array $meters)
    {
        $this->room = self::run();
        for ($channel = 0; $channel < $channels; $channel++) {
            $this->channels[] = new FloatBuffer($this->room);
        }
    }

    /** Frames of every run but the last. */
    public static function run(): int
    {
        return 16 * BlockFilter::step();
    }

    /** @throws LibraryMissing */
    public function take(Block $block): void
    {
        for ($done = 0; $done < $block->frames; $done += $count) {
            $count = min($block->frames - $done, $this->room - $this->held);
            Interleaving::get()->partInto($block->buffer, $block->first() + $done * $block->channels, $this->channels, $this->held, $count);
            $this->held += $count;
            if ($this->held === $this->room) {
                $this->give();
            }
        }
    }

    public function finish(): void
    {
        if ($this->held > 0) {
            foreach ($this->channels as $buffer) {
                $buffer->silence($this->held, $this->room - $this->held);
            }
            $this->give();
            $this->held = 0;
        }
    }

    private function give(): void
    {
        foreach ($this->meters as $meter) {
            $meter->take($this->channels, $this->held);
        }
        $this->held = 0;
    }
}
