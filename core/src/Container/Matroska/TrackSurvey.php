<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Codec\PacketLength;

/** What was seen of one track's blocks. Times are ticks of the segment. */
final class TrackSurvey
{
    public ?int $first = null;

    /** The time from which on samples are counted. */
    public ?int $counted = null;

    public ?int $last = null;

    public ?int $firstAt = null;

    public int $firstBytes = 0;

    public ?int $lastAt = null;

    public int $lastSamples = 0;

    /** Ticks that the last block duration: as it says itself, else as long as the one before; 0 where neither is known. */
    public int $lastTicks = 0;

    public int $usualSamples = 0;

    /** Of all frames; null where not all were seen. */
    public ?int $samples = 0;

    public int $frames = 0;

    public int $bytes = 0;

    /** Ticks that the frames seen take up. */
    public int $seenTicks = 0;

    public int $discard = 0;

    public int $previous = -1;

    public ?PacketLength $length = null;
}
