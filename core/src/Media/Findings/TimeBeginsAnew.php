<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Its clock begins anew. */
final readonly class TimeBeginsAnew implements FindingKind
{
    /** @param  int  $times  how often */
    public function __construct(public int $times) {}
}
