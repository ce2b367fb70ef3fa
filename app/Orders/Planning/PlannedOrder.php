<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use Octavox\Core\Destination\Fit;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Plan\SourceKnowledge;

/** What comes of all lines of an order. */
final readonly class PlannedOrder
{
    /**
     * @param  array<int, PlannedLine>  $lines  by line
     * @param  array<int, Fit>  $fits  by line, where the order goes to a destination
     * @param  array<int, SourceKnowledge>  $knowledge  by line, of those that were planned just now
     */
    public function __construct(public array $lines, public array $fits, public array $knowledge) {}
}
