<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Sound\LoudnessMeter;
use Octavox\Core\Sound\TruePeakMeter;

/** What one process has measured of a sound, on its way to another. */
final readonly class PartialAnalysis
{
    public function __construct(public LoudnessMeter $loudness, public TruePeakMeter $truePeak, public ChannelMeter $channels,
        public ?StereoMeter $stereo, public int $samples) {}

    public function packed(): string
    {
        return serialize($this);
    }

    /** @return ?self null where that is no such thing */
    public static function unpacked(string $bytes): ?self
    {
        $part = @unserialize($bytes,
            ['allowed_classes' => [self::class, LoudnessMeter::class, TruePeakMeter::class, ChannelMeter::class, StereoMeter::class]]);

        return $part instanceof self ? $part : null;
    }
}
