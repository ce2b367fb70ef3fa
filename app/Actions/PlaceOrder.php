<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\MakeDelivery;
use App\Models\Order;
use App\Queries\PlanOrder;
use App\Values\DeliveryState;
use App\Values\OrderForm;
use App\Values\PlannedDelivery;
use Illuminate\Support\Facades\DB;

/** Turns an order sheet into an order with its deliveries, and sets them going. */
final class PlaceOrder
{
    public function __construct(private readonly PlanOrder $plans)
    {
    }

    /** Null where nothing on the sheet can be made. */
    public function place(OrderForm $form): ?Order
    {
        return DB::transaction(function () use ($form): ?Order {
            $order = Order::query()->create(['form' => $form->query(), 'summary' => $form->summary()]);
            $planned = array_filter($this->plans->for($form, self::folder($order)), fn (PlannedDelivery $delivery): bool => $delivery->plan !== null);
            if ($planned === []) {
                $order->delete();

                return null;
            }
            foreach ($planned as $one) {
                $this->record($order, $one);
            }

            return $order;
        });
    }

    private static function folder(Order $order): string
    {
        return sprintf('%s/%04d', config('octavox.results'), $order->id);
    }

    private function record(Order $order, PlannedDelivery $one): void
    {
        $plan = $one->plan;
        if ($plan === null) {
            return;
        }
        $delivery = $order->deliveries()->create([
            'source_id' => $one->source->id, 'source_name' => $one->source->name, 'name' => $plan->name, 'action' => $plan->isKept() ? 'kept' : 'remade',
            'state' => DeliveryState::Waiting, 'plan' => $plan->toArray(), 'source_bytes' => $one->soundBytes,
            'predicted_bytes' => $plan->predictedBytes, 'samples' => $plan->samples, 'rate' => $plan->form->rate,
        ]);
        MakeDelivery::dispatch($delivery->id);
    }
}
