<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Sound\Level;

/** What a result must be found to be when it is read back. */
final readonly class Written
{
    /**
     * @param  string|Summing  $hash  {@see PacketSum} of all packets
     * @param  ?string  $checksum  XXH128 of the whole file, null where its begin was completed at the end
     * @param  int  $sourceBytes  of the source's coded sound
     * @param  ?Level  $level  of the sound as it went into the encoder, null where it was not decoded
     * @param  ?DecodeDigest  $heard  what was decoded while it was made
     * @param  ?LevelSetting  $setting  what was measured before the level was set
     * @param  ?string  $samples  XXH128 of the samples as they went into an encoder that keeps every bit
     * @param  ?int  $held  samples that the copied packets hold, those left out at the begin not counted; null where all is encoded
     * @param  int  $gaps  that copied packets leave open: where they end is told in milliseconds by some containers
     * @param  ?Level  $incoming  of the sound as it came in, where channels, fades or a gain change it
     * @param  list<int>  $seams  samples at which the packets are summed anew
     */
    public function __construct(public string|Summing $hash, public ?string $checksum, public int $sourceBytes, public ?Level $level, public ?string $samples = null, public ?DecodeDigest $heard = null, public ?LevelSetting $setting = null, public array $seams = [], public ?int $held = null, public int $gaps = 0, public ?Level $incoming = null)
    {
    }

    /**
     * {@see PacketSum} of all packets; waits for it where another process still reads them.
     *
     * @param  callable(): void  $sign  told now and then that it is still at work
     */
    public function packets(callable $sign): string
    {
        return Summing::of($this->hash, $sign);
    }
}
