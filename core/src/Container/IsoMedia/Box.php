<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** One box: its four letters and where its content stands in the file. ISO/IEC 14496-12, 4.2. */
final readonly class Box
{
    /** @param  bool  $cut whether it announces more than the file has */
    public function __construct(public string $type, public int $at, public int $bodyAt, public int $end, public bool $cut = false) {}

    public function bodyLength(): int
    {
        return $this->end - $this->bodyAt;
    }
}
