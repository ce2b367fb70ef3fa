<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Sound\Layout;

/** The `desc` chunk: Apple Core Audio Format Specification 1.0, "Audio Description Chunk". */
final readonly class Description
{
    /**
     * @param  int  $packetBytes  0 where packets differ in size
     * @param  int  $packetFrames  samples a channel of one packet
     */
    private function __construct(public int $rate, public string $format, public int $flags, public int $packetBytes,
        public int $packetFrames, public int $channels, public int $bits) {}

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    public static function read(Cursor $cursor, string $name, int $at): self
    {
        $rate = (int) round(max(0.0, min(1e9, $cursor->f64be())));
        $description = new self($rate, $cursor->take(4), $cursor->u32be(), $cursor->u32be(), $cursor->u32be(), $cursor->u32be(),
            $cursor->u32be());
        if ($description->channels < 1 || $description->channels > Layout::MOST_CHANNELS || $rate < 1 || $rate > 10_000_000
            || $description->packetFrames > 1 << 20) {
            throw BrokenStructure::at($name, $at,
                sprintf('its header names %s channels at %s Hz', number_format($description->channels), number_format($rate)));
        }

        return $description;
    }
}
