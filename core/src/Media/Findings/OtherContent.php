<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Stretches between the frames that are read are no part of the same recording. */
final readonly class OtherContent implements FindingKind
{
    /**
     * @param  int  $bytes  of all of them
     * @param  int  $at  where the first stands
     */
    public function __construct(public int $bytes, public int $at) {}
}
