<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Http\ListOrder;
use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Orders\Actions\ChangeLines;
use App\Orders\Actions\MarkLines;
use App\Orders\Actions\OpenDraft;
use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Queries\Drafts;
use App\Orders\Values\DraftInput;
use App\Orders\Values\Scope;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Octavox\Core\Failure;

final class LineController
{
    /**
     * What is beneath the row of a line that is opened.
     *
     * @throws Failure
     */
    public function show(Request $request, Order $order, OrderLine $line, LinePanel $panel): View
    {
        return view('orders.panel', ['panel' => $panel->open($order, $line, $request->query->has('all'))]);
    }

    /**
     * @throws Failure
     */
    public function update(Request $request, Order $order, OrderLine $line, ChangeLines $change, OrderSheet $sheets): View
    {
        abort_unless($order->isDraft(), 409);
        $scope = Scope::tryFrom(RequestInput::sent($request, 'scope'));
        $change->with($order, $line, $scope ?? Scope::Alone, $request->request->all());

        return view('orders.renewed', ['sheet' => $sheets->build($order, SheetView::fromInput($request->query->all()))]);
    }

    /**
     * What helps against one thing, for every line that it helps.
     *
     * @throws Failure
     */
    public function alike(Request $request, Order $order, ChangeLines $change, OrderSheet $sheets): View
    {
        abort_unless($order->isDraft(), 409);
        $view = SheetView::fromInput($request->query->all());
        $fields = RequestInput::sent($request, 'fields');
        $change->with($order, null, Scope::Line, (array) json_decode($fields, true), $sheets->build($order, $view)->helpedBy($fields));

        return view('orders.renewed', ['sheet' => $sheets->build($order, $view)]);
    }

    /**
     * Marks lines, or takes their marks away.
     *
     * @throws Failure
     */
    public function mark(Request $request, Order $order, OrderSheet $sheets, MarkLines $mark): View
    {
        $lines = LineNumbers::read($request->input('lines'));
        $on = $request->boolean('on');
        match (RequestInput::sent($request, 'which')) {
            'all' => $mark->all($order, true),
            'none' => $mark->all($order, false),
            default => $mark->some($order, $lines, $on),
        };

        return view('orders.renewed', ['sheet' => $sheets->build($order, SheetView::fromInput($request->query->all()))]);
    }

    /** Takes lines off the order; their sources stay on the list. */
    public function destroy(Request $request, Order $order, ChangeLines $change): RedirectResponse
    {
        abort_unless($order->isDraft(), 409);
        $request->boolean('marked') ? $change->removeMarked($order)
            : $change->remove($order, LineNumbers::read($request->input('lines')));

        return redirect()->route('order', [$order, ...SheetView::fromInput($request->query->all())->query()]);
    }

    /** Ticks among the sources are lines of the draft. */
    public function tick(Request $request, CurrentDraft $current, OpenDraft $open, ChangeLines $change): View|Response
    {
        $sources = LineNumbers::read($request->input('sources'));
        if (ListOrder::read($request) === ListOrder::NEWEST) {
            // What came together, as a playlist or a folder, goes onto the sheet in the order in which it came, not the last first.
            sort($sources);
        }
        $order = $current->find();
        if ($request->boolean('on')) {
            $order === null ? $order = $open->with(DraftInput::of(['sources' => $sources])) : $open->add($order, $sources);
            $current->set($order);
        } else {
            $order === null ? null : $change->removeSources($order, $sources);
        }

        return view('sources.foot', ['draft' => $order, 'outside' => true]);
    }

    /** Which draft ticks go to: one that stands open, or a new one at the next tick. */
    public function choose(Request $request, CurrentDraft $current, Drafts $drafts): RedirectResponse
    {
        $order = $drafts->numbered($request->integer('order'));
        $order !== null ? $current->set($order) : $current->forget();

        return redirect()->back(fallback: route('sources'));
    }
}
