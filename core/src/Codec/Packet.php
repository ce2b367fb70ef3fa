<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** Coded bytes with their place in the track's own time. */
final readonly class Packet
{
    /**
     * @param  int  $start  first sample, counted in decoded samples from the begin of the coded track
     * @param  int  $length  number of samples it decodes to
     * @param  ?string  $config  set-up bytes from this packet on, where they differ from the track's
     */
    public function __construct(public string $data, public int $start, public int $length, public ?string $config = null)
    {
    }
}
