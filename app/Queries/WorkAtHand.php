<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Order;
use App\Models\Result;
use App\Values\AtWork;
use App\Values\OrderProgress;
use App\Values\OrderState;
use App\Values\ResultState;
use Illuminate\Database\Eloquent\Builder;

/** What every page says of the work that goes on. */
final class WorkAtHand
{
    /** Whoever looks away for longer is not called any more. */
    private const MINUTES_AFTER = 10;

    private const MOST_NAMES = 3;

    public function __construct(private readonly ResultList $results, private readonly NextResult $next) {}

    public function now(): AtWork
    {
        $open = fn (): Builder => Result::query()->whereIn('state', [ResultState::Waiting, ResultState::Making]);
        $orders = $open()->distinct()->orderBy('order_id')->pluck('order_id')->all();
        $waiting = Result::query()->where('state', ResultState::Waiting);
        $eligible = $this->next->eligible()->count();
        $room = (clone $waiting)->whereNotNull('waits_for')->count();

        return new AtWork($this->progress($orders), $this->next->isHeld(), $open()->where('state', ResultState::Making)->count(), $eligible,
            $waiting->count() - $eligible - $room, $room, array_values(array_filter($orders, is_int(...))), $this->ended($orders));
    }

    /** @param  array<array-key, mixed>  $orders */
    private function progress(array $orders): OrderProgress
    {
        return OrderProgress::of($this->results->counted($orders)->all());
    }

    /**
     * @param  array<array-key, mixed>  $open  orders that are not done yet
     * @return array<int, string>
     */
    private function ended(array $open): array
    {
        $since = now()->subMinutes(self::MINUTES_AFTER);
        $says = [];
        $orders = Order::query()->where('state', OrderState::Placed)->whereNotIn('id', $open)
            ->whereHas('results', fn (Builder $query) => $query->where('ended_at', '>=', $since))->get();
        $all = $this->results->progress($orders->all());
        foreach ($orders as $order) {
            $progress = $all[$order->id];
            $failed = $progress->failed === 0 ? [] : $order->results()->where('state', ResultState::Failed)->limit(self::MOST_NAMES)
                ->pluck('name')->all();
            $says[$order->id] = $order->heading().': '.$progress->says().($failed === [] ? '' : ' ('.implode(', ', array_filter($failed,
                is_string(...))).($progress->failed > self::MOST_NAMES ? ' …' : '').')');
        }

        return $says;
    }
}
