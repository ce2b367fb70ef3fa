<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Orders\Models\Order;
use App\Results\Models\Result;
use Illuminate\Database\Eloquent\Collection;

/** An order as the list of results shows it: with some of its results. */
final readonly class OrderResults
{
    /** @param  Collection<int, Result>  $results  each of which knows its order then */
    public function __construct(public Order $order, public Collection $results)
    {
        $results->each(fn (Result $result) => $result->setRelation('order', $order));
    }
}
