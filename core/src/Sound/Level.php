<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** Peak and RMS as parts of full scale (1.0). */
final readonly class Level
{
    public function __construct(public float $peak, public float $rms) {}

    /**
     * @param  ?float  $peak  dBFS
     * @param  ?float  $rms  dBFS
     * @return ?self null where neither is told
     */
    public static function ofDecibels(?float $peak, ?float $rms): ?self
    {
        $value = fn (?float $decibels): float => $decibels === null ? 0.0 : 10 ** ($decibels / 20);

        return $peak === null && $rms === null ? null : new self($value($peak), $value($rms));
    }

    /** dBFS, or null for silence. */
    public function peakDecibels(): ?float
    {
        return self::decibels($this->peak);
    }

    /** dBFS (a full-scale square wave is 0), or null for silence. */
    public function rmsDecibels(): ?float
    {
        return self::decibels($this->rms);
    }

    private static function decibels(float $value): ?float
    {
        return $value > 0.0 && is_finite($value) ? round(20 * log10($value), 2) : null;
    }
}
