<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

use Octavox\Core\Bytes\Stretch;

/** Packets that stand together and last equally long, taken as one: where nothing looks into them, each by itself only costs time. */
final readonly class PacketRun
{
    /**
     * @param  Stretch  $data  of all of them
     * @param  string  $sizes  bytes of each, 32 bits, most significant byte first
     * @param  int  $start  first sample of the first
     * @param  int  $each  samples of one
     */
    public function __construct(public Stretch $data, public string $sizes, public int $start, public int $each) {}

    /** Samples of all of them. */
    public function length(): int
    {
        return $this->each * intdiv(strlen($this->sizes), 4);
    }
}
