<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Http\RequestInput;
use App\Orders\Actions\ChangeOrder;
use App\Orders\Actions\DropDraft;
use App\Orders\Actions\OpenDraft;
use App\Orders\Actions\SaveAsRecipe;
use App\Orders\Models\Order;
use App\Orders\Queries\Drafts;
use App\Orders\Values\DraftInput;
use App\Results\Actions\DraftAgain;
use App\Results\Actions\PlaceOrder;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Octavox\Core\Failure;

final class OrderController
{
    /** All drafts that stand open. */
    public function index(Drafts $drafts): View
    {
        return view('orders.index', ['drafts' => $drafts->open()]);
    }

    /** The draft that this browser works on. Addresses of former releases held a whole order: they begin a draft that asks the same. */
    public function current(Request $request, CurrentDraft $current, OpenDraft $open, Drafts $drafts): View|RedirectResponse
    {
        $asked = DraftInput::of($request->query->all());
        $order = $asked->sources === [] ? $current->find() : $drafts->begunWith($asked) ?? $open->with($asked);
        if ($order === null) {
            return view('orders.index', ['drafts' => $drafts->open()]);
        }
        $current->set($order);

        return redirect()->route('order', $order);
    }

    public function store(Request $request, OpenDraft $open, CurrentDraft $current): RedirectResponse
    {
        $asked = DraftInput::of($request->request->all());
        $order = $open->with($asked);
        $current->set($order);

        return redirect()->route('order', $order);
    }

    /**
     * @throws Failure
     */
    public function show(Request $request, Order $order, OrderSheet $sheets, CurrentDraft $current): View|RedirectResponse
    {
        if (! $order->isDraft()) {
            return redirect()->route('results', ['order' => $order->id]);
        }
        $current->set($order);

        return $this->sheet($request, $order, $sheets, match (true) {
            $request->query->has('rows') => 'orders.rows',
            $request->query->has('renew') => 'orders.renewed',
            default => 'orders.sheet',
        });
    }

    /**
     * @throws Failure
     */
    public function update(Request $request, Order $order, ChangeOrder $change, OrderSheet $sheets): View
    {
        abort_unless($order->isDraft(), 409);
        $change->with($order, $request->request->all());

        return $this->sheet($request, $order, $sheets, 'orders.renewed');
    }

    public function destroy(Order $order, CurrentDraft $current, DropDraft $drop): RedirectResponse
    {
        abort_unless($order->isDraft(), 409);
        $drop->drop($order);
        $current->forget();

        return redirect()->route('orders')->with('said', 'The draft '.$order->heading().' is gone; its sources are still on the list.');
    }

    /**
     * @throws Failure
     */
    public function place(Request $request, Order $order, PlaceOrder $place, CurrentDraft $current): RedirectResponse
    {
        $revision = $request->request->get('revision');
        $obstacle = $place->place($order, is_numeric($revision) ? (int) $revision : null);
        if ($obstacle !== '') {
            return redirect()->route('order', $order)->with('said', $obstacle);
        }
        $current->forget();

        return redirect()->route('results', ['order' => $order->id]);
    }

    /**
     * Keeps what a draft asks as a recipe; the draft goes on by that.
     *
     * @throws Failure
     */
    public function keep(Request $request, Order $order, SaveAsRecipe $save, OrderSheet $sheets): View|Response
    {
        abort_unless($order->isDraft(), 409);
        try {
            $save->save($order, RequestInput::sent($request, 'title'));
        } catch (Failure $failure) {
            return response($failure->getMessage(), 422, ['Content-Type' => 'text/plain; charset=utf-8']);
        }

        return $this->sheet($request, $order, $sheets, 'orders.renewed');
    }

    /** A draft that asks the same. */
    public function again(Request $request, Order $order, DraftAgain $again, CurrentDraft $current): RedirectResponse
    {
        $draft = $again->begin($order, $request->request->has('empty'));
        $current->set($draft);

        return redirect()->route('order', $draft);
    }

    /**
     * @param  view-string  $view
     *
     * @throws Failure
     */
    private function sheet(Request $request, Order $order, OrderSheet $sheets, string $view): View
    {
        return view($view, ['sheet' => $sheets->build($order, SheetView::fromInput($request->query->all()))]);
    }
}
