<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** What sets the decoder up is missing. */
final readonly class SetUpMissing implements FindingKind
{
    public function __construct(public int $track, public string $format) {}
}
