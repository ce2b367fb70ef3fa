<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Channels are put in other places. */
final readonly class Route implements StepKind
{
    /** @param  list<string>  $channels  what each channel of the result takes */
    public function __construct(public array $channels, public string $layout) {}
}
