<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\MakeDelivery;
use App\Models\Delivery;
use App\Values\DeliveryState;
use Illuminate\Support\Facades\DB;

/** Cancels deliveries and begins them again. */
final class ChangeDelivery
{
    /** One that waits is cancelled at once; one at work as soon as its worker looks up, a third of a second at most. */
    public function cancel(Delivery $delivery): void
    {
        $waiting = Delivery::query()->whereKey($delivery->id)->where('state', DeliveryState::Waiting)
            ->update(['state' => DeliveryState::Cancelled, 'ended_at' => now()]);
        if ($waiting === 0) {
            Delivery::query()->whereKey($delivery->id)->where('state', DeliveryState::Making)->update(['cancelling' => true]);
        }
        $delivery->refresh();
    }

    public function retry(Delivery $delivery): void
    {
        DB::transaction(function () use ($delivery): void {
            $waiting = Delivery::query()->whereKey($delivery->id)->whereIn('state', [DeliveryState::Failed, DeliveryState::Cancelled])->update([
                'state' => DeliveryState::Waiting, 'cancelling' => false, 'done_samples' => 0, 'speed' => null, 'attempts' => 0,
                'error_code' => null, 'error_says' => null, 'ended_at' => null,
            ]);
            if ($waiting === 1) {
                MakeDelivery::dispatch($delivery->id);
            }
        });
        $delivery->refresh();
    }
}
