<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;

/** How two stretches that were encoded apart become one, byte for byte what one encoder would have given. */
interface StreamSplicer
{
    /** An encoder of one of the two, which leaves out what only the whole can tell. */
    public function encoder(): Encoder;

    /** Samples of which the seam must be a multiple. */
    public function step(): int;

    /** Whether the result says something of all samples in their order, so that somebody must hear them all. */
    public function hearsAll(): bool;

    /** Whether the later stretch stands unchanged where the number of samples before it tells. */
    public function knowsItsPlace(): bool;

    /** All sound in its order, where it is to be heard; the block stays as it is. */
    public function hear(Block $block): void;

    /**
     * A packet of the later stretch as it stands in the whole.
     *
     * @param  int  $seam  samples before that stretch
     */
    public function packet(Packet $packet, int $seam): Packet;

    /**
     * The audio format of the later stretch, once all its packets have become what they are in the whole.
     *
     * @param  AudioFormat  $audio  as its encoder gave it at its end
     */
    public function later(AudioFormat $audio): AudioFormat;

    /**
     * The audio format of the whole.
     *
     * @param  AudioFormat  $earlier  as its encoder gave it at its end
     * @param  AudioFormat  $later  as {@see self::later()} gave it
     * @param  int  $samples  of both
     */
    public function audio(AudioFormat $earlier, AudioFormat $later, int $samples): AudioFormat;
}
