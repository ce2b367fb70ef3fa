<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** A name that is too long for some programs. */
final readonly class LongName implements FindingKind
{
    public function __construct(public int $bytes, public int $most) {}
}
