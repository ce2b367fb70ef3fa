<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flv;

/** One tag: its kind, when it is, where its body stands, and the first bytes of it. */
final readonly class FlvTag
{
    /** @param  int  $time  milliseconds */
    public function __construct(public int $kind, public int $time, public int $at, public int $bytes, public string $head) {}
}
