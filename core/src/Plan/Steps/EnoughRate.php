<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** A bit rate with which nothing more is lost to the ear. */
final readonly class EnoughRate implements StepKind
{
    /**
     * @param  float  $own  kbit/s of the source
     * @param  string  $source  its format
     */
    public function __construct(public int $kbps, public string $format, public float $own, public string $source) {}
}
