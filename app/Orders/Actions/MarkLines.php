<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;

/** Marks lines, or takes their marks away. */
final class MarkLines
{
    public function all(Order $order, bool $on): void
    {
        $order->lines()->update(['marked' => $on]);
    }

    /** @param  list<int>  $lines  their numbers */
    public function some(Order $order, array $lines, bool $on): void
    {
        $order->lines()->whereKey($lines)->update(['marked' => $on]);
    }
}
