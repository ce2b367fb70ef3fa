<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Media\AudioFormat;

/** Uncompressed sound whose packets begin with a header of their own. */
interface PcmPackets
{
    /** What the header of a packet says; null where it cannot be. */
    public function audio(string $packet): ?AudioFormat;

    /** The samples without the header, as plain frames most significant byte first. */
    public function samples(string $packet): string;
}
