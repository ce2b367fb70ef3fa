<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\Packet;

/** Writes one sound track as a file of its own. */
interface SoundWriter
{
    public function write(Packet $packet): void;

    /**
     * Completes the file.
     *
     * @param  int  $samples  that a player presents
     * @param  int  $padding  samples the encoder added after the end
     */
    public function finish(int $samples, int $padding): void;
}
