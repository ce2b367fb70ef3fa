<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** It ends before the recording does. */
final readonly class CutShort implements FindingKind
{
    /** @param  ?string  $unit  `bytes`, `bytes of sound`, `samples` or `seconds`; null where nothing tells how much */
    public function __construct(public int|float|null $announced = null, public int|float|null $there = null,
        public ?string $unit = null) {}
}
