<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Orders\Models\Order;
use App\Orders\Values\DraftInput;
use App\Orders\Values\OrderState;
use Illuminate\Contracts\Pagination\Paginator;

/** Orders that are not placed yet. */
final class Drafts
{
    private const PER_PAGE = 50;

    /** @return Paginator<int, Order> those changed last first */
    public function open(): Paginator
    {
        return Order::query()->where('state', OrderState::Draft)->withCount('lines')->latest('updated_at')->latest('id')
            ->simplePaginate(self::PER_PAGE);
    }

    public function numbered(int $number): ?Order
    {
        return Order::query()->where('state', OrderState::Draft)->find($number);
    }

    /** The draft that an address began before and nobody has changed since: going back and forth begins no second one. */
    public function begunWith(DraftInput $asked): ?Order
    {
        return Order::query()->where('state', OrderState::Draft)->where('once', $asked->mark())->where('revision', 1)->first();
    }
}
