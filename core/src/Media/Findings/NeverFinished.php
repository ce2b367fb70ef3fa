<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** The recording was never finished. */
final readonly class NeverFinished implements FindingKind
{
    /** @param  ?string  $found  `lengths` where all of it was found */
    public function __construct(public ?string $found = null) {}
}
