<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Order;
use App\Models\OrderLine;
use App\Values\OpenLine;
use App\Values\SheetLine;

/** Everything that is shown of one line that is opened. */
final class LinePanel
{
    public function __construct(private readonly PlanOrder $plans) {}

    /** @param  bool  $hasFields  whether every field of the order can be set for this line */
    public function of(Order $order, OrderLine $line, bool $hasFields): OpenLine
    {
        $lines = $this->plans->for($order);
        $own = collect($lines)->first(fn (SheetLine $one): bool => $one->line->id === $line->id) ?? abort(404);

        return OrderSheet::opened($order, $lines, $own, $hasFields);
    }
}
