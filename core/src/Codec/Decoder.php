<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;

/** Packets of one codec → sound. Sound comes out in order and complete, from the first packet's first sample on. */
interface Decoder
{
    /**
     * Takes one packet and gives sound once enough has gathered; the block is good until the next call.
     *
     * @throws Failure
     */
    public function decode(Packet $packet): ?Block;

    /** What was still held; null when there is no more. To be called until it gives null. */
    public function finish(): ?Block;
}
