<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Database\FoundNames;
use App\Lists\ListPage;
use App\Lists\ListPlace;
use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use App\Results\Models\Result;
use App\Results\Models\SafeCopy;
use App\Results\Values\OrderProgress;
use App\Results\Values\ResultState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;

/** Orders with their results, newest first, and what has changed of them. */
final class ResultList
{
    private const ORDERS_AT_ONCE = 8;

    /** Results of an order that are shown at once among others; all of them are on its own page. */
    private const AT_ONCE = 8;

    /** Results of one order, or of those that are looked for, on a page. */
    private const PER_PAGE = 60;

    /** Numbers that are looked at in one question where what is looked for is narrowed further. */
    private const CHUNK = 2000;

    private const CHUNKS = 10;

    private const MOST = 5000;

    /** @return ListPage<OrderResults> the newest order first */
    public function page(ResultSearch $search, ?ListPlace $from = null): ListPage
    {
        return match (true) {
            $search->isNarrow() => $this->found($search, $from),
            $search->order !== null => $this->ofOrder($search->order, $from),
            default => $this->newest($from),
        };
    }

    /** @return ListPage<OrderResults> */
    private function newest(?ListPlace $from): ListPage
    {
        $isBackwards = $from->isBackwards ?? false;
        /** @var list<Order> $orders */
        $orders = $this->placed()->when($from !== null, fn (Builder $query) => $query->where('id', $isBackwards ? '>' : '<', $from?->id))
            ->orderBy('id', $isBackwards ? 'asc' : 'desc')->limit(self::ORDERS_AT_ONCE + 1)->get()->all();
        $isMore = count($orders) > self::ORDERS_AT_ONCE;
        $orders = array_slice($orders, 0, self::ORDERS_AT_ONCE);
        $items = $isBackwards ? array_reverse($orders) : $orders;
        // One question for each of a few: numbering the results of all would go through all of them.
        $items = array_map(fn (Order $order): OrderResults => new OrderResults($order, Result::ofOrder($order)->limit(self::AT_ONCE)
            ->get()),
            $items);

        return self::part($items, $isBackwards, $isMore, $from, fn (OrderResults $one): int => $one->order->id);
    }

    /** @return ListPage<OrderResults> */
    private function ofOrder(int $number, ?ListPlace $from): ListPage
    {
        $order = $this->placed()->find($number);
        if ($order === null) {
            return new ListPage([], null, null);
        }
        $isBackwards = $from->isBackwards ?? false;
        $results = Result::query()->where('order_id', $number)
            ->when($from !== null, fn (Builder $query) => $query->where('id', $isBackwards ? '<' : '>', $from?->id))
            ->orderBy('id', $isBackwards ? 'desc' : 'asc')->limit(self::PER_PAGE + 1)->get();
        $isMore = $results->count() > self::PER_PAGE;
        $results = $results->take(self::PER_PAGE);
        $own = new OrderResults($order, $isBackwards ? $results->reverse()->values() : $results);
        $page = self::part(array_values($own->results->all()), $isBackwards, $isMore, $from, fn (Result $result): int => $result->id);

        return new ListPage([$own], $page->before, $page->after);
    }

    /** @return ListPage<OrderResults> */
    private function found(ResultSearch $search, ?ListPlace $from): ListPage
    {
        $isBackwards = $from->isBackwards ?? false;
        $ids = $this->numbers($search, $from?->id, $isBackwards, self::PER_PAGE + 1);
        $isMore = count($ids) > self::PER_PAGE;
        /** @var Collection<int, Result> $results */
        $results = Result::query()->whereKey(array_slice($ids, 0, self::PER_PAGE))->orderByDesc('id')->get();
        $orders = [];
        /** @var list<Order> $found */
        $found = $this->placed()->whereKey($results->pluck('order_id')->unique()->all())->orderByDesc('id')->get()->all();
        foreach ($found as $order) {
            $orders[] = new OrderResults($order, $results->where('order_id', $order->id)->reverse()->values());
        }
        $page = self::part(array_values($results->all()), $isBackwards, $isMore, $from, fn (Result $result): int => $result->id);

        return new ListPage($orders, $page->before, $page->after);
    }

    /**
     * Numbers of results that are like a search, from a number on.
     *
     * @return list<int> falling; rising where it goes backwards
     */
    private function numbers(ResultSearch $search, ?int $from, bool $isBackwards, int $most): array
    {
        $direction = $isBackwards ? 'asc' : 'desc';
        $beyond = $isBackwards ? '>' : '<';
        $found = [];
        for ($chunk = 0; $chunk < self::CHUNKS && count($found) < $most; $chunk++) {
            $some = null;
            if ($search->find !== '' && ! FoundNames::isShort($search->find)) {
                $some = DB::table('result_names')->whereRaw('result_names match ?', [FoundNames::phrase($search->find)])
                    ->when($from !== null, fn ($query) => $query->where('rowid', $beyond, $from))
                    ->orderBy('rowid', $direction)->limit($search->isFindAlone() ? $most : self::CHUNK)->pluck('rowid')->all();
                $from = is_int($last = end($some)) ? $last : $from;
            }
            $query = $search->narrow(Result::query());
            if ($some !== null) {
                $query->whereKey($some);
            } elseif ($from !== null) {
                $query->where('results.id', $beyond, $from);
            }
            $ids = $query->orderBy('results.id', $direction)->limit($most - count($found))->pluck('results.id')->all();
            array_push($found, ...array_values(array_filter($ids, is_int(...))));
            if ($some === null || count($some) < self::CHUNK) {
                break;
            }
        }

        return $found;
    }

    /** @return Builder<Order> */
    private function placed(): Builder
    {
        return Order::query()->where('state', OrderState::Placed);
    }

    /**
     * @template T
     *
     * @param  list<T>  $items
     * @param  callable(T): int  $number
     * @return ListPage<T>
     */
    private static function part(array $items, bool $isBackwards, bool $isMore, ?ListPlace $from, callable $number): ListPage
    {
        $place = fn (int $id): string => ListPlace::written($id, $id);
        if ($items === []) {
            return new ListPage([], null, null);
        }

        return new ListPage($items, ($isBackwards ? $isMore : $from !== null) ? $place($number($items[0])) : null,
            $isBackwards || $isMore ? $place($number($items[count($items) - 1])) : null);
    }

    /**
     * @param  array<array-key, mixed>  $orders
     * @return array<int, OrderProgress> by order
     */
    public function progress(array $orders): array
    {
        $ids = array_values(array_unique(array_map(fn (Order $order): int => $order->id,
            array_filter($orders, fn (mixed $order): bool => $order instanceof Order))));
        $rows = $this->counted($ids)->groupBy('order_id');
        $copies = SafeCopy::query()->whereIn('order_id', $ids)->groupBy('order_id')
            ->selectRaw('order_id, count(*) as files, min(path) as path')
            ->toBase()->get()->keyBy('order_id');
        $progress = [];
        foreach ($ids as $id) {
            $progress[$id] = OrderProgress::of($rows->get($id)?->all() ?? [], $copies->get($id));
        }

        return $progress;
    }

    /**
     * As the database keeps it, with how far those are that are being made.
     *
     * @param  array<array-key, mixed>  $orders  numbers
     * @return \Illuminate\Support\Collection<int, \stdClass> what {@see OrderProgress::of()} takes, by order and state
     */
    public function counted(array $orders): \Illuminate\Support\Collection
    {
        $making = Result::query()->where('state', ResultState::Making)->whereIn('order_id', $orders)->groupBy('order_id')
            ->selectRaw('order_id, sum(done_samples * 1.0 / max(rate, 1)) as made, sum(speed) as speed')->toBase()->get()
            ->keyBy('order_id');

        return DB::table('order_counts')->whereIn('order_id', $orders)->where('files', '>', 0)->get()
            ->map(function (\stdClass $row) use ($making): \stdClass {
                $own = $row->state === ResultState::Making->value ? $making->get($row->order_id) : null;
                $row->made = $own->made ?? 0.0;
                $row->speed = $own->speed ?? 0.0;

                return $row;
            });
    }

    /** @return Collection<int, Result> at most two hundred a call */
    public function changedSince(Carbon $moment): Collection
    {
        return Result::query()->with('order')->where('updated_at', '>=', $moment)->orderBy('updated_at')->orderBy('id')
            ->limit(200)->get();
    }

    public function anyOpen(): bool
    {
        return DB::table('order_counts')->whereIn('state', [ResultState::Waiting, ResultState::Making])->where('files', '>', 0)->exists();
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
