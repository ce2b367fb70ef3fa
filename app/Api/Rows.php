<?php

declare(strict_types=1);

namespace App\Api;

use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use Illuminate\Database\Eloquent\Builder;

/** What lists of the interface go through. */
final class Rows
{
    /** @return Builder<Order> */
    public function orders(): Builder
    {
        return Order::query()->where('state', OrderState::Placed);
    }

    /**
     * @param  ?int  $order  number of the one whose results are meant; null for all
     * @return Builder<Result>
     */
    public function results(?ResultState $state, ?int $order): Builder
    {
        return Result::query()->with('order')->when($state !== null, fn (Builder $rows) => $rows->where('state', $state))
            ->when($order !== null, fn (Builder $rows) => $rows->where('order_id', $order));
    }

    /** @return Builder<Source> */
    public function sources(?SourceState $state): Builder
    {
        return Source::query()->with('tracks')->when($state !== null, fn (Builder $rows) => $rows->where('state', $state));
    }
}
