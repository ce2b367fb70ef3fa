<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Planning\PlanOrder;
use App\Orders\Planning\SheetLine;
use Octavox\Core\Failure;

/** Everything that is shown of one line that is opened. */
final class LinePanel
{
    public function __construct(private readonly PlanOrder $plans) {}

    /**
     * @param  bool  $hasFields  whether every field of the order can be set for this line
     *
     * @throws Failure
     */
    public function open(Order $order, OrderLine $line, bool $hasFields): OpenLine
    {
        $lines = $this->plans->for($order);
        $own = collect($lines)->first(fn (SheetLine $one): bool => $one->line->id === $line->id) ?? abort(404);

        return OrderSheet::opened($order, $lines, $own, $hasFields);
    }
}
