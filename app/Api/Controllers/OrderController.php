<?php

declare(strict_types=1);

namespace App\Api\Controllers;

use App\Api\Body;
use App\Api\Documents;
use App\Api\OrderAsAsked;
use App\Api\OrderRequest;
use App\Api\Page;
use App\Api\Rows;
use App\Files\Shelves;
use App\Http\Problem;
use App\Orders\Actions\DropDraft;
use App\Orders\Models\Order;
use App\Orders\Planning\NameClashes;
use App\Orders\Planning\Place;
use App\Orders\Planning\PlanOrder;
use App\Presets\Queries\Presets;
use App\Results\Actions\ChangeResults;
use App\Results\Actions\HoldWork;
use App\Results\Actions\PlaceOrder;
use App\Results\Queries\ResultList;
use App\Results\Values\ManyResults;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/** Plans and orders, for scripts. */
final class OrderController
{
    public function __construct(private readonly ResultList $results) {}

    /**
     * What would be made; nothing is.
     *
     * @throws Failure
     */
    public function plan(Request $request, OrderAsAsked $open, PlanOrder $plans, NameClashes $clashes, Presets $presets,
        Shelves $shelves, DropDraft $drop): JsonResponse
    {
        $draft = $this->draft($request, $open, $presets);
        try {
            $lines = $clashes->on($plans->for($draft), Place::of($draft->place, $shelves)->isOwn());

            return Page::document(['lines' => array_map(Documents::line(...), $lines)]);
        } finally {
            $drop->drop($draft);
        }
    }

    /**
     * @throws Failure
     */
    public function store(Request $request, OrderAsAsked $open, PlaceOrder $place, PlanOrder $plans, Presets $presets,
        DropDraft $drop): JsonResponse
    {
        $mark = $request->attributes->get('mark');
        $order = $this->draft($request, $open, $presets, is_string($mark) ? $mark : null);
        try {
            $obstacle = $place->place($order);
            if ($obstacle !== '') {
                $lines = $plans->for($order);
                $isWaiting = array_filter($lines, fn ($line): bool => $line->isWaiting()) !== [];

                return Problem::respond($isWaiting ? 409 : 422, $isWaiting ? 'still-read' : 'nothing-made', $obstacle,
                    ['lines' => array_map(Documents::line(...), $lines)]);
            }
        } finally {
            $order->isDraft() && $drop->drop($order);
        }

        return $this->told($order, 201, ['Location' => route('api.order', $order)]);
    }

    public function index(Request $request, Rows $rows): JsonResponse
    {
        return Page::of($request, $rows->orders(), Documents::order(...), fn (array $orders): array => $this->results->progress($orders));
    }

    public function show(Order $order): JsonResponse
    {
        return $this->told($order);
    }

    /** Pauses it or has it go on, before all others or after them. */
    public function update(Request $request, Order $order, HoldWork $hold): JsonResponse
    {
        $body = Body::read($request);
        $order->isDraft() && Problem::throw(404, 'nothing-there', 'This order was not placed yet.');
        is_bool($body['held'] ?? null) && $hold->order($order, $body['held']);
        match ($body['turn'] ?? null) {
            'first' => $hold->priority($order, true),
            'last' => $hold->priority($order, false),
            null => null,
            default => Problem::throw(422, 'invalid', 'An order comes first or last; nothing was changed.', ['pointer' => '/turn']),
        };

        return $this->told($order);
    }

    public function cancel(Order $order, ChangeResults $change): JsonResponse
    {
        $change->each($this->results->many($order->id, []), ManyResults::Cancel);

        return $this->told($order);
    }

    public function retry(Order $order, ChangeResults $change): JsonResponse
    {
        $change->each($this->results->many($order->id, []), ManyResults::Retry);

        return $this->told($order);
    }

    public function results(Request $request, Order $order, Rows $rows): JsonResponse
    {
        return Page::of($request, $rows->results(null, $order->id), Documents::result(...));
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function draft(Request $request, OrderAsAsked $open, Presets $presets, ?string $mark = null): Order
    {
        $asked = OrderRequest::of($request);
        if ($asked->goes !== '' && $presets->written($asked->goes) === null) {
            Problem::throw(422, 'invalid',
                sprintf('There is no destination or recipe “%s”; nothing was ordered.', substr($asked->goes, 3)));
        }

        return $open->open($asked, $mark);
    }

    /** @param  array<string, string>  $headers */
    private function told(Order $order, int $status = 200, array $headers = []): JsonResponse
    {
        $order->isDraft() && Problem::throw(404, 'nothing-there', 'This order was not placed yet.');

        return Page::document(Documents::order($order->refresh(), $this->results->progress([$order])[$order->id]), $status, $headers);
    }
}
