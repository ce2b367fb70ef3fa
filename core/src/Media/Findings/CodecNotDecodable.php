<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Nothing here decodes it. */
final readonly class CodecNotDecodable implements FindingKind
{
    public function __construct(public int $track, public string $format) {}
}
