<?php

declare(strict_types=1);

namespace App\Work;

/** One worker's hold of one row. */
final readonly class Claim
{
    /** @param  int  $attempts  this one included; those that ended with their worker do not count */
    public function __construct(public WorkKind $kind, public int $row, public string $worker, public int $attempts) {}
}
