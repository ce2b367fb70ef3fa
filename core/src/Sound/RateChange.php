<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\RateConverter;

/** Changes the sample rate; gives exactly {@see self::framesAfter()} frames for the frames taken. */
final class RateChange implements Stage
{
    private readonly RateConverter $converter;

    private readonly FloatBuffer $room;

    private int $taken = 0;

    private int $given = 0;

    /**
     * @param  int  $from  Hz
     * @param  int  $to  Hz
     * @param  bool  $finest  28 instead of 20 bits of precision, for results wider than 16 bits
     *
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly int $from, private readonly int $to, private readonly int $channels, bool $finest)
    {
        $this->converter = new RateConverter($from, $to, $channels, $finest);
        $this->room = new FloatBuffer(16384 * $channels);
    }

    /** Frames of the result for $frames of the source: the nearest whole number, halves upward. */
    public static function framesAfter(int $frames, int $from, int $to): int
    {
        return Time::rescale($frames, $from, $to);
    }

    public function take(Block $block): iterable
    {
        $this->taken += $block->frames;
        $offset = 0;
        while ($offset < $block->frames) {
            $step = $this->converter->convert($block->buffer, $block->offset + $offset, $block->frames - $offset, $this->room);
            $offset += $step->used;
            if ($step->given > 0) {
                $this->given += $step->given;
                yield new Block($this->room, $step->given, $this->channels);
            } elseif ($step->used === 0) {
                break;
            }
        }
    }

    public function finish(): iterable
    {
        $wanted = self::framesAfter($this->taken, $this->from, $this->to);
        while ($this->given < $wanted) {
            $given = $this->converter->convert(null, 0, 0, $this->room)->given;
            if ($given === 0) {
                $given = min($wanted - $this->given, intdiv($this->room->capacity, $this->channels));
                $this->room->silence(0, $given * $this->channels);
            }
            $given = min($given, $wanted - $this->given);
            $this->given += $given;
            yield new Block($this->room, $given, $this->channels);
        }
    }
}
