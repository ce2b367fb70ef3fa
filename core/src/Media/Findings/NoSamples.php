<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** A track is announced and empty. */
final readonly class NoSamples implements FindingKind
{
    public function __construct(public int $track) {}
}
