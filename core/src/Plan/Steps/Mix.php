<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** A standard mix of all channels. */
final readonly class Mix implements StepKind
{
    /**
     * @param  string  $from  layout
     * @param  string  $layout  of the result
     */
    public function __construct(public string $from, public string $layout) {}
}
