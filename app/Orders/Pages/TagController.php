<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Http\RequestInput;
use App\Orders\Actions\ChangeTags;
use App\Orders\Models\Order;
use App\Orders\Queries\TagGrid;
use App\Orders\Queries\TagHistory;
use App\Orders\Queries\TagTool;
use App\Orders\Values\TagToolInput;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The grid of tags of a draft. */
final class TagController
{
    private const AT_ONCE = 100;

    public function show(Request $request, Order $order, TagGrid $grid, TagHistory $history): View|RedirectResponse
    {
        if (! $order->isDraft()) {
            return redirect()->route('results', ['order' => $order->id]);
        }
        $rows = $grid->rows($order);
        $more = RequestInput::text($request, 'more');
        $page = max(1, min(RequestInput::number($request, 'page', 1), (int) ceil(max(1, count($rows)) / self::AT_ONCE)));

        return view('orders.tags', ['order' => $order, 'rows' => array_slice($rows, ($page - 1) * self::AT_ONCE, self::AT_ONCE),
            'columns' => TagGrid::columns($rows, $more), 'more' => $more, 'page' => $page,
            'pages' => (int) ceil(count($rows) / self::AT_ONCE),
            'short' => TagGrid::short($rows), 'undo' => ! $history->isEmpty($order),
            'marked' => $order->markedCount(), 'count' => count($rows)]);
    }

    /** Keeps what is typed while it is being typed. */
    public function type(Request $request, Order $order, ChangeTags $change): Response
    {
        abort_unless($order->isDraft(), 409);
        $cells = $request->input('cells');
        $change->cells($order, is_array($cells) ? $cells : []);

        return response()->noContent();
    }

    public function undo(Request $request, Order $order, ChangeTags $change): RedirectResponse
    {
        abort_unless($order->isDraft(), 409);
        $lines = $change->undo($order);

        return redirect()->route('order.tags', [$order, ...array_filter(['more' => RequestInput::sent($request, 'more'),
            'page' => $request->integer('page')])])->with('said', match ($lines) {
                0 => 'There is nothing to take back.',
                1 => 'The last change was taken back; it was of one line.',
                default => sprintf('The last change was taken back; it was of %s lines.', number_format($lines)),
            });
    }

    public function update(Request $request, Order $order, ChangeTags $change): RedirectResponse
    {
        abort_unless($order->isDraft(), 409);
        $tool = TagTool::tryFrom(RequestInput::sent($request, 'tool'));
        $cells = $request->input('cells');
        $changed = $change->cells($order, is_array($cells) ? $cells : []);
        $input = TagToolInput::of($request->request->all());
        if ($tool === TagTool::ToName) {
            $change->names($order, $input->pattern);
        }
        $changed += $tool === null ? 0 : $change->tool($order, $tool, $input);
        $says = $tool === TagTool::ToName ? 'The results are named like '.$input->pattern.'; the order sheet shows each name.'
            : ($changed === 1 ? 'One field was changed.' : number_format($changed).' fields were changed.');

        return redirect()->route('order.tags', [$order, ...array_filter(['more' => RequestInput::sent($request, 'more'),
            'page' => $request->integer('page')])])->with('said', $says.' The sources stay as they are.');
    }
}
