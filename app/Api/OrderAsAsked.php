<?php

declare(strict_types=1);

namespace App\Api;

use App\Orders\Actions\ChangeOrder;
use App\Orders\Actions\OpenDraft;
use App\Orders\Models\Order;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Order\OutputSpec;

/** Begins an order as a script asks for it; nothing that is set for people's drafts is added. */
final class OrderAsAsked
{
    public function __construct(private readonly OpenDraft $open, private readonly ChangeOrder $change) {}

    /** @param  ?string  $mark  of the request; the order of a former try is taken up, a draft that it left goes */
    public function open(OrderRequest $asked, ?string $mark = null): Order
    {
        $former = $mark === null ? null : Order::query()->where('asked_by', $mark)->first();
        if ($former !== null && ! $former->isDraft()) {
            return $former;
        }

        /** @var Order */
        return DB::transaction(function () use ($asked, $mark, $former): Order {
            $former?->delete();
            $order = Order::query()->create(['spec' => (new OutputSpec)->toArray(), 'asked_by' => $mark]);
            $this->open->add($order, $asked->sources);
            $this->change->with($order, ['title' => $asked->title, 'place' => $asked->place, 'on_failure' => $asked->onFailure->value,
                'care' => $asked->care->value]
                + ($asked->goes === '' ? [] : ['goes' => $asked->goes]));
            if ($asked->spec !== null) {
                $order->update(['spec' => $asked->spec->over($order->asked())->toArray()]);
            }
            foreach ($asked->lines as $source => $spec) {
                $order->lines()->where('source_id', $source)->update(['spec' => json_encode($spec->toArray())]);
            }

            return $order;
        });
    }
}
