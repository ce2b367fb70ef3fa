<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Tracks of a disc were recorded with pre-emphasis. */
final readonly class PreEmphasis implements FindingKind
{
    public function __construct(public int $tracks) {}
}
