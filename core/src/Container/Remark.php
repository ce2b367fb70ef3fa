<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** Something a reader noticed that does not keep it from reading. */
final readonly class Remark
{
    public function __construct(public string $code, public RemarkWeight $weight, public string $says, public string $remedy)
    {
    }
}
