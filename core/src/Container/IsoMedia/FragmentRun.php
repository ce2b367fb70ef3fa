<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** One run of samples of a fragment: ISO/IEC 14496-12, 8.8.8. */
final readonly class FragmentRun
{
    /**
     * @param  int  $dataAt  place of the first sample's bytes in the file
     * @param  int  $firstTick  at which the first is decoded
     * @param  int  $tableAt  place of the run's own table
     * @param  int  $duration  ticks of a sample where the table tells none
     * @param  int  $size  bytes of a sample where the table tells none
     * @param  int  $ticks  of all samples
     * @param  int  $bytes  of all samples
     */
    public function __construct(
        public int $dataAt,
        public int $count,
        public int $firstTick,
        public int $tableAt,
        public int $flags,
        public int $duration,
        public int $size,
        public int $ticks,
        public int $bytes,
    ) {}

    /** As a table of runs holds it: seven numbers of 64 bits, least significant byte first. */
    public function packed(): string
    {
        return pack('P*', $this->dataAt, $this->count, $this->firstTick, $this->tableAt, $this->flags, $this->duration, $this->size);
    }
}
