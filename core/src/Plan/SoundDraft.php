<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** One sound as it is planned, with what is told of it. */
final readonly class SoundDraft
{
    /**
     * @param  list<Step>  $steps
     * @param  list<Step>  $warnings
     * @param  int  $bytes  that it will take, predicted: of a file of sound alone the whole file
     */
    public function __construct(public SoundPlan $plan, public array $steps, public array $warnings, public int $bytes) {}
}
