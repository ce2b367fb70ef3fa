<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Signs in its name on which programs choke. */
final readonly class NameSigns implements FindingKind
{
    public function __construct(public string $what) {}
}
