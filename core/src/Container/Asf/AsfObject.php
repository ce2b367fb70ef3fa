<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

/** A media object put together from its payloads. */
final readonly class AsfObject
{
    /** @param  int  $time  milliseconds, the file's run-in included */
    public function __construct(public int $time, public string $data)
    {
    }
}
