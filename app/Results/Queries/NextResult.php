<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Settings\Queries\Settings;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/** Which result is made next: orders in their priority, then the turns that results were given, then as they were ordered. */
final class NextResult
{
    public function __construct(private readonly Settings $settings) {}

    /** @return Builder<Result> of all that wait those that nobody holds back */
    public function eligible(): Builder
    {
        return Result::query()->where('results.state', ResultState::Waiting)->where('results.held', false)->whereNull('results.waits_for')
            ->whereHas('order', fn (Builder $query) => $query->where('held', false));
    }

    /** How many wait that somebody holds back, they themselves or their order. */
    public function heldBack(): int
    {
        $own = fn () => Result::query()->where('results.held', true)->where('results.state', ResultState::Waiting)
            ->whereNull('results.waits_for');
        $orders = DB::table('order_counts')->join('orders', 'orders.id', '=', 'order_counts.order_id')->where('orders.held', true)
            ->where('order_counts.state', ResultState::Waiting)->where('files', '>', 0)->pluck('files', 'order_id')->all();
        $roomless = $orders === [] ? 0 : Result::query()->whereNotNull('waits_for')->where('state', ResultState::Waiting)
            ->whereIn('order_id', array_keys($orders))->count();

        return array_sum(array_map(fn (mixed $files): int => is_int($files) ? $files : 0, $orders)) - $roomless
            + $own()->whereNotIn('order_id', array_keys($orders))->count();
    }

    /** How many wait for room on their drive. */
    public function waitingForRoom(): int
    {
        return Result::query()->whereNotNull('waits_for')->where('state', ResultState::Waiting)->count();
    }

    /** Whether everything is held. */
    public function isHeld(): bool
    {
        $this->settings->forget();

        return $this->settings->is(Settings::MAKING_HELD);
    }
}
