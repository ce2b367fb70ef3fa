<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Sound\Layout;

/** What the boxes within a sound sample entry say, gathered while they are walked. */
final class SoundParts
{
    public bool $littleEndian = false;

    public int $pcmBits = 0;

    public int $objectType = 0;

    public string $aacConfig = '';

    /** Set-up bytes of other codecs, out of their own boxes. */
    public string $config = '';

    public ?Layout $layout = null;
}
