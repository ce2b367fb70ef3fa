<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The source does not say where its channels belong. */
final readonly class AssumedPlaces implements StepKind
{
    /**
     * @param  list<string>  $channels
     * @param  bool  $narrow  whether the encoder may keep the low frequencies alone of one
     */
    public function __construct(public array $channels, public bool $narrow) {}
}
