<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\MakeResult;
use App\Models\Order;
use App\Queries\PlanOrder;
use App\Values\OrderForm;
use App\Values\PlannedResult;
use App\Values\ResultState;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Plan\Plan;

/** Turns an order sheet into an order with its results, and sets them going. */
final class PlaceOrder
{
    public function __construct(private readonly PlanOrder $plans) {}

    /**
     * Null where nothing on the sheet can be made, or where something of it is not planned yet.
     *
     * @param  string  $once  what one showing of the sheet sends along; what was sent with it before is answered by the order that
     *          was made then
     */
    public function place(OrderForm $form, string $once = ''): ?Order
    {
        $key = $once === '' ? null : $once.hash('xxh128', serialize($form->query()));
        // Nobody else waits while this is planned.
        $planned = $this->plans->for($form, config()->string('octavox.results'));
        $waits = array_filter($planned, fn (PlannedResult $one): bool => $one->isWaiting) !== [];

        /** @var ?Order $order */
        $order = DB::transaction(function () use ($form, $key, $planned, $waits): ?Order {
            $known = $key === null ? null : Order::query()->where('once', $key)->first();
            if ($known !== null || $waits || array_filter($planned, fn (PlannedResult $one): bool => $one->plan !== null) === []) {
                return $known;
            }
            $order = Order::query()
                ->create(['sheet' => $form->query(), 'spec' => $form->spec->toArray(), 'summary' => $form->summary(), 'once' => $key]);
            foreach ($planned as $one) {
                if ($one->plan !== null) {
                    $this->record($order, $one,
                        $one->plan->withTarget($one->plan->target->into(sprintf('%s/%04d',
                            config()->string('octavox.results'), $order->id))));
                }
            }

            return $order;
        });

        return $order;
    }

    private function record(Order $order, PlannedResult $one, Plan $plan): void
    {
        $result = $order->results()->create([
            'source_id' => $one->source->id, 'source_name' => $one->source->name, 'name' => $plan->name(),
            'action' => $plan->isKept() ? 'kept' : 'remade',
            'state' => ResultState::Waiting, 'plan' => $plan->toArray(), 'source_bytes' => $one->soundBytes,
            'predicted_bytes' => $plan->target->predictedBytes, 'samples' => $plan->length(), 'rate' => $plan->lengthRate(),
        ]);
        MakeResult::dispatch($result->id);
    }
}
