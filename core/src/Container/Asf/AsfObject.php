<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

/** A media object put together from its payloads. */
final readonly class AsfObject
{
    /**
     * @param  int  $time  milliseconds, the file's run-in included
     * @param  bool  $key  whether decoding can begin with it
     */
    public function __construct(public int $time, public string $data, public bool $key = true) {}
}
