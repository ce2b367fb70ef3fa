<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

/** What copied packets hold: what a source's times announce can differ from it a little. */
final readonly class Copied
{
    /**
     * @param  int  $samples  that they hold, those left out at the start not counted
     * @param  int  $gaps  that they leave open: where they end is told in milliseconds by some containers
     */
    public function __construct(public int $samples, public int $gaps) {}
}
