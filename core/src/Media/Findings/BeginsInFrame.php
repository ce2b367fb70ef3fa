<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** It begins in the midst of a frame. */
final readonly class BeginsInFrame implements FindingKind
{
    /** @param  int  $bytes  before the first whole frame */
    public function __construct(public int $bytes) {}
}
