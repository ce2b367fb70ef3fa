<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format does not have that bit rate. */
final readonly class BitRate extends Violation implements OfFormat
{
    /**
     * @param  int  $rate  Hz
     * @param  list<int>  $nearest
     */
    public function __construct(
        public string $format,
        public int $kbps,
        public int $rate,
        public int $channels,
        public array $nearest = [],
    ) {}
}
