<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Orders\Actions\OpenDraft;
use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Results\Models\Result;
use Illuminate\Support\Facades\DB;

/** Begins a draft that asks the same as another order, of the same sources as far as they are still there. */
final class DraftAgain
{
    public function __construct(private readonly OpenDraft $open) {}

    /** For other sources than that of the result; also where its order says nothing of single lines. */
    public function ofResult(Result $result): Order
    {
        $spec = Order::specOf($result->spec ?? $result->order->spec);

        return Order::query()->create(['spec' => $spec->withPlace(null)->withTags(null)->toArray(), 'place' => $result->order->place]);
    }

    /** @param  bool  $empty  whether only what is asked is taken over, for other sources */
    public function begin(Order $order, bool $empty = false): Order
    {
        /** @var Order */
        return DB::transaction(function () use ($order, $empty): Order {
            $draft = Order::query()->create($order->only(['spec', 'destination', 'recipe', 'base', 'place']));
            $lines = $empty ? [] : $order->lines()->get()->map(fn (OrderLine $line): array => ['order_id' => $draft->id,
                'source_id' => $line->source_id, 'position' => $line->position,
                'spec' => $line->spec === null ? null : json_encode($line->spec)])->all();
            foreach (array_chunk($lines, 200) as $part) {
                $draft->lines()->insert($part);
            }
            if (! $empty && $lines === []) {
                // Orders of former releases have no lines.
                $this->open->add($draft, array_values(array_filter(Result::ofOrder($order)->pluck('source_id')->all(), is_int(...))));
            }

            return $draft;
        });
    }
}
