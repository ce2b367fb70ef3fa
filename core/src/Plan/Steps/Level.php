<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Its level is set. */
final readonly class Level implements StepKind
{
    /** @param  string  $target  {@see \Octavox\Core\Sound\LevelTarget::parse()} */
    public function __construct(public string $target) {}
}
