<?php

declare(strict_types=1);

namespace App\Orders\Values;

/** One channel in the drawing of a way. */
final readonly class WayEnd
{
    public function __construct(public int $x, public int $y, public string $letters) {}
}
