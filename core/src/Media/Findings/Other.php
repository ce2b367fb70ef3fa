<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Of another release: it brings its own words. */
final readonly class Other implements FindingKind
{
    public function __construct(public string $code, public string $says, public string $remedy) {}
}
