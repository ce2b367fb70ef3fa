<?php

declare(strict_types=1);

namespace App\Results;

use App\Results\Models\Result;

/** A result is done: whoever makes something of finished results hears it. */
final readonly class ResultMade
{
    public function __construct(public Result $result) {}
}
