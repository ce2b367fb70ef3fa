<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** There are several sound tracks. */
final readonly class SeveralSoundTracks implements FindingKind
{
    public function __construct(public int $count) {}
}
