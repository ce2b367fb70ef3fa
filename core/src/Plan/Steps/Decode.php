<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The sound is decoded. */
final readonly class Decode implements StepKind
{
    /** @param  int  $tracks  that are decoded together */
    public function __construct(public string $format, public int $tracks) {}
}
