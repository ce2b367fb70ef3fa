<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** The picture track that is copied beside the sounds. */
final readonly class PicturePlan
{
    /** @param  int  $milliseconds  its length, by which the progress of a video without sound is told */
    public function __construct(public int $track, public int $milliseconds) {}
}
