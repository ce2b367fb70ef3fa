<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;

/** Throws a draft away; its sources stay on the list. */
final class DropDraft
{
    public function drop(Order $order): void
    {
        $order->delete();
    }
}
