<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** Writes one sound track as a file of its own. */
interface SoundWriter
{
    public function write(Packet $packet): void;

    /**
     * Completes the file.
     *
     * @param  int  $samples  that a player presents
     * @param  AudioFormat  $audio  what was made, with what only the end tells
     */
    public function finish(int $samples, AudioFormat $audio): void;
}
