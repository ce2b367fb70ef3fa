<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** A table within the file: where its first entry stands, how many there are, bytes of each. */
final readonly class Column
{
    public function __construct(public int $at, public int $count, public int $width) {}
}
