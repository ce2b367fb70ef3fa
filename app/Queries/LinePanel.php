<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Order;
use App\Models\OrderLine;
use App\Values\OpenLine;
use App\Values\SheetView;

/** Everything that is shown of one line that is opened. */
final class LinePanel
{
    public function __construct(private readonly OrderSheet $sheets) {}

    /** @param  bool  $hasFields  whether every field of the order can be set for this line */
    public function of(Order $order, OrderLine $line, bool $hasFields): OpenLine
    {
        $sheet = $this->sheets->of($order, SheetView::of('', '', ''));
        $own = $sheet->line($line->id) ?? abort(404);

        return OrderSheet::opened($order, $sheet->lines, $own, $hasFields);
    }
}
