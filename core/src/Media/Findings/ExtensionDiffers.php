<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Its name says something else than its content. */
final readonly class ExtensionDiffers implements FindingKind
{
    public function __construct(public string $extension, public string $container) {}
}
