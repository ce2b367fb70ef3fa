<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Order;
use App\Models\Result;
use App\Values\OrderProgress;
use App\Values\OrderState;
use App\Values\ResultSearch;
use App\Values\ResultState;
use Illuminate\Contracts\Pagination\Paginator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/** Orders with their results, newest first, and what has changed of them. */
final class ResultList
{
    private const ORDERS_PER_PAGE = 12;

    /** Results of an order that are shown at once; all of them are on its own page. */
    private const AT_ONCE = 30;

    private const MOST = 5000;

    /** @return Paginator<int, Order> */
    public function page(ResultSearch $search): Paginator
    {
        $only = fn (Builder|HasMany $query) => $search->narrow($query);

        return Order::query()->where('state', OrderState::Placed)
            ->with(['safeCopies', 'results' => fn (HasMany $query) => $search->narrow($query)->with('order')
                ->limit($search->order === null ? self::AT_ONCE : self::MOST)])
            ->withCount(['results as found' => $only])
            ->when($search->order !== null, fn ($query) => $query->whereKey($search->order))
            ->when($search->isNarrow(), fn ($query) => $query->whereHas('results', $only))
            ->latest('id')->simplePaginate(self::ORDERS_PER_PAGE)->withQueryString();
    }

    /**
     * @param  array<array-key, mixed>  $orders
     * @return array<int, OrderProgress> by order
     */
    public function progress(array $orders): array
    {
        $ids = array_values(array_unique(array_map(fn (Order $order): int => $order->id,
            array_filter($orders, fn (mixed $order): bool => $order instanceof Order))));
        $rows = $this->counted($ids);
        $progress = [];
        foreach ($ids as $id) {
            $progress[$id] = OrderProgress::of($rows->where('order_id', $id)->all());
        }

        return $progress;
    }

    /**
     * @param  array<array-key, mixed>  $orders  numbers
     * @return \Illuminate\Support\Collection<int, \stdClass> what {@see OrderProgress::of()} takes, by order and state
     */
    public function counted(array $orders): \Illuminate\Support\Collection
    {
        return Result::query()->whereIn('order_id', $orders)->groupBy('order_id', 'state')
            ->selectRaw('order_id, state, count(*) as files, sum(samples * 1.0 / max(rate, 1)) as seconds, '
                .'sum(done_samples * 1.0 / max(rate, 1)) as made, sum(case when state = ? then speed else 0 end) as speed', ['making'])
            ->toBase()->get();
    }

    /** @return Collection<int, Result> at most two hundred a call */
    public function changedSince(Carbon $moment): Collection
    {
        return Result::query()->with('order.safeCopies')->where('updated_at', '>=', $moment)->orderBy('id')->limit(200)->get();
    }

    public function anyOpen(): bool
    {
        return Result::query()->whereIn('state', [ResultState::Waiting, ResultState::Making])->exists();
    }

    /**
     * @param  list<int>  $ids
     * @return Collection<int, Result> those of an order, or those that are named
     */
    public function many(?int $order, array $ids): Collection
    {
        return Result::query()->with('order')->when($order !== null, fn ($query) => $query->where('order_id', $order),
            fn ($query) => $query->whereKey($ids))->orderBy('id')->limit(self::MOST)->get();
    }
}
