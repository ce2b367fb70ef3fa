<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** What packets from the midst of a sound need to begin a sound of their own. One object serves one cut. */
interface PacketTrimmer
{
    /** @param  int  $samples  that the cut decodes to */
    public function audio(AudioFormat $audio, int $samples): AudioFormat;

    /** @param  Packet  $packet  the first that is kept, then the one after it, and so on */
    public function packet(Packet $packet): Packet;
}
