<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Result;
use App\Values\ResultState;
use Illuminate\Database\Eloquent\Builder;

/** Which result is made next: orders in their priority, then the turns that results were given, then as they were ordered. */
final class NextResult
{
    public function __construct(private readonly Settings $settings) {}

    /** Of all that wait those that nobody holds back. */
    public function eligible(): Builder
    {
        return Result::query()->where('results.state', ResultState::Waiting)->where('results.held', false)->whereNull('results.waits_for')
            ->whereHas('order', fn (Builder $query) => $query->where('held', false));
    }

    /** Whether everything is held. */
    public function isHeld(): bool
    {
        $this->settings->forget();

        return $this->settings->is(Settings::MAKING_HELD);
    }

    /**
     * Takes it for a worker: nobody else gets the same.
     *
     * @return ?Result null where there is none
     */
    public function take(string $token, int $worker): ?Result
    {
        while (! $this->isHeld()) {
            $id = $this->eligible()->join('orders', 'orders.id', '=', 'results.order_id')->orderByDesc('orders.priority')
                ->orderBy('orders.id')->orderBy('results.turn')->orderBy('results.id')->value('results.id');
            if (! is_int($id)) {
                return null;
            }
            $taken = Result::query()->whereKey($id)->where('state', ResultState::Waiting)->where('held', false)->update([
                'state' => ResultState::Making, 'token' => $token, 'worker' => $worker, 'begun_at' => now(), 'phase' => 'making',
                'done_samples' => 0, 'speed' => null, 'cancelling' => false, 'error_code' => null, 'error_says' => null,
            ]);
            if ($taken === 1) {
                return Result::query()->find($id);
            }
        }

        return null;
    }
}
