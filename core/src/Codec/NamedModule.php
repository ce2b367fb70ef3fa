<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** Of codecs that have a name here and nothing else. */
final class NamedModule extends CodecModule
{
    public function isDecoded(): bool
    {
        return false;
    }
}
