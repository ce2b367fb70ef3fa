<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * Adds triangular noise of ±1 step before samples become narrower, so that what is lost is heard as
 * quiet even noise and not as distortion (Lipshitz, Wannamaker, Vanderkooy, JAES 40/5, 1992).
 *
 * The noise comes from a table made once from a fixed seed, and depends on where a sample stands: the same source gives the same
 * bytes, whoever makes which stretch of it.
 */
final class Dither implements Stage
{
    private const TABLE = 131072;

    /** Samples that take their noise from one place of the table. */
    private const STRETCH = 65536;

    private readonly FloatBuffer $noise;

    private int $state = 1;

    /**
     * @param  int  $bits  bit depth of the result, 8 to 24; one step is 2^(1-bits)
     * @param  int  $at  the sample at which this begins, counted over all channels
     *
     * @throws BlockTooLarge
     */
    public function __construct(private readonly int $bits, private int $at = 0)
    {
        for ($stretch = 0, $begun = intdiv($at + self::STRETCH - 1, self::STRETCH); $stretch < $begun; $stretch++) {
            $this->advance();
        }
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(1994));
        $numbers = array_values(unpack('v*', $random->getBytes(4 * self::TABLE)) ?: []);
        $bytes = '';
        for ($from = 0; $from < 2 * self::TABLE; $from += 2048) {
            $part = [];
            for ($index = $from; $index < $from + 2048; $index += 2) {
                $part[] = ((int) $numbers[$index] - (int) $numbers[$index + 1]) / 65536;
            }
            $bytes .= pack('f*', ...$part);
        }
        $this->noise = FloatBuffer::fromBytes($bytes);
    }

    /** @throws LibraryMissing */
    public function take(Block $block): iterable
    {
        $step = 2.0 ** (1 - $this->bits);
        for ($done = 0; $done < $block->samples(); $done += $count) {
            $within = $this->at % self::STRETCH;
            if ($within === 0) {
                $this->advance();
            }
            $count = min(self::STRETCH - $within, $block->samples() - $done);
            VectorMath::get()->add($block->buffer, $block->first() + $done, $this->noise, ($this->state >> 16) + $within, $count, $step);
            $this->at += $count;
        }
        yield $block;
    }

    public function finish(): iterable
    {
        return [];
    }

    /** A small linear congruential generator (Numerical Recipes, 7.1) picks where in the table to begin. */
    private function advance(): void
    {
        $this->state = ($this->state * 1664525 + 1013904223) & 0xFFFFFFFF;
    }
}
