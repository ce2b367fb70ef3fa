<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Reading;

/** What was found out of a line of a draft, as long as nothing of what it comes from has changed. */
final readonly class RememberedLine
{
    /**
     * @param  string  $key  by which it is known whether anything has changed
     * @param  list<Plan>  $plans  before names were numbered against those of other lines
     * @param  ?list<Rejection>  $refused  for what the destination would refuse them under these names; null where nobody has looked
     */
    public function __construct(public string $key, public Reading $facts, public array $plans, public ?Fit $fit, public ?array $refused) {}
}
