<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Coded bytes with their place in the track's own time. */
final readonly class Packet
{
    /**
     * @param  int  $start  first sample, counted in decoded samples from the start of the coded track
     * @param  int  $length  number of samples it decodes to
     * @param  ?string  $config  set-up bytes from this packet on, where they differ from the track's
     */
    public function __construct(public string $data, public int $start, public int $length, public ?string $config = null) {}

    /**
     * The part of a packet of uncompressed sound that lies between two samples; null where none does.
     *
     * @param  int  $width  bytes of one frame
     */
    public function within(int $from, int $until, int $width): ?self
    {
        $skip = max(0, $from - $this->start);
        $count = min($this->length, $until - $this->start) - $skip;

        return $count > 0 ? new self(substr($this->data, $skip * $width, $count * $width), $this->start + $skip, $count) : null;
    }
}
