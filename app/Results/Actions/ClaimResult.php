<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Results\Models\Result;
use App\Results\Queries\NextResult;
use App\Results\Values\ResultState;
use App\Work\Claim;
use App\Work\Claims;
use App\Work\WorkKind;
use Illuminate\Support\Facades\DB;

/**
 * Gives a worker the result whose turn it is: orders in their priority, then the turns that results were given, then as they were ordered.
 */
final class ClaimResult
{
    public function __construct(private readonly NextResult $next, private readonly Claims $claims) {}

    /**
     * Takes the first of the first order that has any for a worker: nobody else gets the same.
     *
     * @return ?Claim null where there is none
     */
    public function claim(string $token): ?Claim
    {
        while (! $this->next->isHeld()) {
            $claim = $this->first();
            if ($claim === null) {
                return null;
            }
            $taken = Result::query()->whereKey($claim->row)->where('state', ResultState::Waiting)->where('held', false)->update([
                'state' => ResultState::Making, 'token' => $token, 'begun_at' => now(), 'phase' => 'making',
                'done_samples' => 0, 'speed' => null, 'cancelling' => false, 'error_code' => null, 'error_says' => null,
            ]);
            if ($taken === 1) {
                return $claim;
            }
            // Somebody has cancelled or paused it just now.
            $this->claims->end($claim);
        }

        return null;
    }

    private function first(): ?Claim
    {
        $orders = DB::table('order_counts')->join('orders', 'orders.id', '=', 'order_counts.order_id')->where('orders.held', false)
            ->where('order_counts.state', ResultState::Waiting)->where('files', '>', 0)
            ->orderByDesc('orders.priority')->orderBy('orders.id')->pluck('orders.id')->all();
        foreach ($orders as $order) {
            $claim = $this->claims->take(WorkKind::Making, Result::query()->where('state', ResultState::Waiting)->where('order_id', $order)
                ->where('held', false)->whereNull('waits_for')->orderBy('turn')->orderBy('id'), 'results.id');
            if ($claim !== null) {
                return $claim;
            }
        }

        return null;
    }
}
