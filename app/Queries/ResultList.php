<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Order;
use App\Models\Result;
use App\Values\ResultState;
use Illuminate\Contracts\Pagination\Paginator;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;

/** Orders with their results, newest first, and what has changed of them. */
final class ResultList
{
    private const ORDERS_PER_PAGE = 12;

    /** @return Paginator<int, Order> */
    public function page(?int $order): Paginator
    {
        return Order::query()->with('results')->when($order !== null, fn ($query) => $query->whereKey($order))
            ->latest('id')->simplePaginate(self::ORDERS_PER_PAGE)->withQueryString();
    }

    /** @return Collection<int, Result> at most two hundred a call */
    public function changedSince(Carbon $moment): Collection
    {
        return Result::query()->where('updated_at', '>=', $moment)->orderBy('id')->limit(200)->get();
    }

    public function anyOpen(): bool
    {
        return Result::query()->whereIn('state', [ResultState::Waiting, ResultState::Making])->exists();
    }
}
