<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

/** What one sound of a result must be found to be when it is read back. */
final readonly class Written
{
    /**
     * @param  string|Summing  $hash  {@see PacketSum} of all packets
     * @param  ?string  $checksum  XXH128 of the whole file, null where its begin was completed at the end or other tracks are in it
     * @param  ?Encoded  $encoded  null where packets are copied
     * @param  ?Copied  $copied  null where all is encoded, or of uncompressed sound
     * @param  list<int>  $seams  samples at which the packets are summed anew
     */
    public function __construct(
        public string|Summing $hash,
        public ?string $checksum = null,
        public ?Encoded $encoded = null,
        public ?Copied $copied = null,
        public array $seams = [],
    ) {}

    /**
     * {@see PacketSum} of all packets; waits for it where another process still reads them.
     *
     * @param  callable(): void  $sign  told now and then that it is still at work
     */
    public function packets(callable $sign): string
    {
        return Summing::compute($this->hash, $sign);
    }
}
