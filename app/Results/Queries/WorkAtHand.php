<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use App\Results\Models\Result;
use App\Results\Values\AtWork;
use App\Results\Values\OrderProgress;
use App\Results\Values\ResultState;
use Illuminate\Support\Facades\DB;

/** What every page says of the work that goes on. */
final class WorkAtHand
{
    /** Whoever looks away for longer is not called any more. */
    private const MINUTES_AFTER = 10;

    private const MOST_NAMES = 3;

    public function __construct(private readonly ResultList $results, private readonly NextResult $next) {}

    public function now(): AtWork
    {
        $orders = DB::table('order_counts')->whereIn('state', [ResultState::Waiting, ResultState::Making])->where('files', '>', 0)
            ->distinct()
            ->orderBy('order_id')->pluck('order_id')->all();
        $counts = $this->results->counted($orders);
        $files = fn (ResultState $state): int => $counts->where('state', $state->value)
            ->reduce(fn (int $sum, \stdClass $row): int => $sum + (is_int($row->files) ? $row->files : 0), 0);
        [$paused, $room] = [$this->next->heldBack(), $this->next->waitingForRoom()];
        $eligible = max(0, $files(ResultState::Waiting) - $paused - $room);

        return new AtWork(OrderProgress::of($counts->all()), $this->next->isHeld(), $files(ResultState::Making), $eligible, $paused, $room,
            array_values(array_filter($orders, is_int(...))), $this->ended($orders));
    }

    /**
     * @param  array<array-key, mixed>  $open  orders that are not done yet
     * @return array<int, string>
     */
    private function ended(array $open): array
    {
        $since = now()->subMinutes(self::MINUTES_AFTER);
        $says = [];
        $ended = Result::query()->from(DB::raw('results indexed by results_ended_at_order_id_index'))->where('ended_at', '>=', $since)
            ->distinct()->pluck('order_id')->all();
        $closed = array_diff(array_filter($ended, is_int(...)), array_filter($open, is_int(...)));
        $orders = Order::query()->where('state', OrderState::Placed)->whereKey($closed)->get();
        $all = $this->results->progress($orders->all());
        foreach ($orders as $order) {
            $progress = $all[$order->id];
            $failed = $progress->failed === 0 ? [] : Result::ofOrder($order)->where('state', ResultState::Failed)->limit(self::MOST_NAMES)
                ->pluck('name')->all();
            $says[$order->id] = $order->heading().': '.$progress->says().($failed === [] ? '' : ' ('.implode(', ', array_filter($failed,
                is_string(...))).($progress->failed > self::MOST_NAMES ? ' …' : '').')');
        }

        return $says;
    }
}
