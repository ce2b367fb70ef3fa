<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Settings\Values\SourceCare;
use App\Sources\Actions\RemoveSources;
use App\Sources\Models\Source;

/** Puts the sources of an order into the bin, where it was asked to, each once all that was made of it is verified. */
final class ClearSources
{
    public function __construct(private readonly RemoveSources $remove) {}

    /** Those orders that are still to be seen to. */
    public function run(): void
    {
        $orders = Order::query()->whereIn('care', [SourceCare::Bin, SourceCare::Both])->whereNull('cleared_at')
            ->where('state', OrderState::Placed)->get();
        $orders->each($this->clearOf(...));
    }

    public function clearOf(Order $order): void
    {
        if (! $order->care->clears() || $order->cleared_at !== null) {
            return;
        }
        $isOpen = false;
        foreach (Result::ofOrder($order)->get()->groupBy('source_id') as $source => $results) {
            $open = $results->contains(fn (Result $one): bool => $one->state->isOpen());
            $isOpen = $isOpen || $open;
            // One that failed, or was left out, still needs its source.
            if (! $open && $results->every(fn (Result $one): bool => $one->isThere())) {
                $this->clear((int) $source);
            }
        }
        if (! $isOpen) {
            $order->update(['cleared_at' => now()]);
        }
    }

    private function clear(int $id): void
    {
        $isWanted = Result::query()->where('source_id', $id)->whereIn('state', [ResultState::Waiting, ResultState::Making])->exists();
        $source = $isWanted ? null : Source::query()->find($id);
        if ($source !== null) {
            $this->remove->bin($source);
        }
    }
}
