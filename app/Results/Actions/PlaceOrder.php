<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Orders\Planning\NameClashes;
use App\Orders\Planning\Place;
use App\Orders\Planning\PlannedResult;
use App\Orders\Planning\PlanOrder;
use App\Orders\Planning\SheetLine;
use App\Orders\Values\OrderState;
use App\Orders\Values\SpecForm;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Failure;
use Octavox\Core\Plan\Plan;

/** Turns a draft into an order with its results, and sets them going. */
final class PlaceOrder
{
    public function __construct(private readonly PlanOrder $plans, private readonly NameClashes $clashes,
        private readonly Shelves $shelves, private readonly WorkSignal $signal) {}

    /**
     * Placing it again changes nothing: whoever presses twice gets the one order.
     *
     * @param  ?int  $revision  of the draft that somebody looked at; null where nobody did
     * @return string why it was not placed, in one sentence; empty where it is
     *
     * @throws Failure
     */
    public function place(Order $order, ?int $revision = null): string
    {
        if (! $order->isDraft()) {
            return '';
        }
        $seen = $revision ?? $order->revision;
        // Nobody else waits while this is planned.
        $lines = $this->clashes->on($this->plans->for($order), Place::of($order->place, $this->shelves)->isOwn());
        $obstacle = $this->obstacle($lines);

        /** @var string */
        return DB::transaction(function () use ($order, $lines, $obstacle, $seen): string {
            $fresh = Order::query()->findOrFail($order->id);
            if (! $fresh->isDraft() || $obstacle !== '') {
                return $fresh->isDraft() ? $obstacle : '';
            }
            if ($fresh->revision !== $seen) {
                return 'This draft was changed elsewhere since this page was shown, so nothing was made yet. Look at it once more, '
                    .'then press again.';
            }
            $form = SpecForm::of($order->asked());
            $fresh->update(['state' => OrderState::Placed, 'placed_at' => now(), 'summary' => $form->summary()]);
            foreach ($lines as $line) {
                foreach ($line->makable() as $one) {
                    $this->record($fresh, $line, $one);
                }
            }
            $order->refresh();
            $this->signal->announce(WorkKind::Making, array_sum(array_map(fn (SheetLine $line): int => count($line->makable()), $lines)));

            return '';
        });
    }

    /** @param  list<SheetLine>  $lines */
    private function obstacle(array $lines): string
    {
        $isAny = fn (callable $is): bool => array_filter($lines, $is) !== [];

        return match (true) {
            $isAny(fn (SheetLine $one): bool => $one->isWaiting()) => 'Some of it is still being looked at, so nothing was made yet. '
                .'Press again in a moment.',
            ! $isAny(fn (SheetLine $one): bool => $one->makable() !== []) => 'Nothing on this sheet can be made as it stands; what '
                .'stands in the way is said beside each source.',
            $isAny(fn (SheetLine $one): bool => $one->isAsking()) => sprintf('%d of the files exist already, and you wanted to be asked: '
                .'say on these lines, or beneath for all, what becomes of them. Nothing was made yet.',
                count(array_filter($lines, fn (SheetLine $one): bool => $one->isAsking()))),
            $isAny(fn (SheetLine $one): bool => $one->isAgainstSource()) => 'A file that is to be replaced is a source, which '
                .'nothing takes the place of: say on its line whether the result is numbered or left out. Nothing was made yet.',
            default => '',
        };
    }

    private function record(Order $order, SheetLine $line, PlannedResult $one): void
    {
        /** @var Plan $plan */
        $plan = $one->plan;
        Result::query()->create(['order_id' => $order->id] + [
            'source_id' => $one->source->id, 'source_name' => $one->source->heading(), 'name' => $plan->name(),
            'action' => $plan->isKept() ? 'kept' : 'remade', 'spec' => $line->spec->toArray(),
            'state' => ResultState::Waiting, 'plan' => $plan->toArray(), 'source_bytes' => $one->soundBytes,
            'predicted_bytes' => $plan->target->predictedBytes, 'samples' => $plan->length(), 'rate' => $plan->lengthRate(),
        ]);
    }
}
