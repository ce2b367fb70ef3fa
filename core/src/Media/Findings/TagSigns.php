<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Signs in its tags on which programs choke. */
final readonly class TagSigns implements FindingKind
{
    public function __construct(public string $what, public string $fields) {}
}
