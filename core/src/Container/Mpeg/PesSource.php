<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Bytes\ByteSource;

/** Where packets of elementary streams come from: a program stream or a transport stream. */
interface PesSource
{
    public function bytes(): ByteSource;

    /**
     * Packets that begin at or after the place, in the order of the file.
     *
     * @param  ?int  $track  only of this stream; null for all
     * @return iterable<Pes>
     */
    public function packets(int $from, int $until, ?int $track = null): iterable;

    /** @return iterable<string> the bytes of one stream, whatever its packets say */
    public function payload(int $track): iterable;
}
