<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

/** A chapter whose begin is told by the clock of the stream. */
final readonly class ChapterTick
{
    /** @param  int  $tick  of 90 kHz */
    public function __construct(public int $tick, public string $title) {}
}
