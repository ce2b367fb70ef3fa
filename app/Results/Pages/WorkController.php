<?php

declare(strict_types=1);

namespace App\Results\Pages;

use App\Http\RequestInput;
use App\Orders\Models\Order;
use App\Results\Actions\ChangeResults;
use App\Results\Actions\HoldWork;
use App\Results\Models\Result;
use App\Results\Queries\ResultList;
use App\Results\Queries\WorkAtHand;
use App\Results\Values\ManyResults;
use App\Results\Values\WorkMark;
use App\Settings\Queries\Settings;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The work that goes on: what every page says of it, and pausing it. */
final class WorkController
{
    public function show(WorkAtHand $work, Settings $settings): View
    {
        return view('parts.work', ['work' => $work->now(), 'rings' => $settings->is(Settings::RING),
            'notifies' => $settings->is(Settings::NOTIFY)]);
    }

    /** The sign of the tab, with as much of a ring around it as is done. */
    public function mark(string $number): Response
    {
        return response(WorkMark::svg((int) $number), 200, ['Content-Type' => 'image/svg+xml',
            'Cache-Control' => 'private, max-age=31536000, immutable']);
    }

    public function everything(Request $request, HoldWork $hold): RedirectResponse
    {
        $hold->everything($request->boolean('held'));

        return redirect()->back(fallback: route('results'));
    }

    public function order(Request $request, Order $order, HoldWork $hold, ResultList $list, ChangeResults $change): RedirectResponse
    {
        match (RequestInput::sent($request, 'do')) {
            'hold' => $hold->order($order, true),
            'go-on' => $hold->order($order, false),
            'rest' => $change->each($list->many($order->id, []), ManyResults::Cancel),
            'first' => $hold->priority($order, true),
            'last' => $hold->priority($order, false),
            default => abort(404),
        };

        return redirect()->back(fallback: route('results'));
    }

    public function result(Request $request, Result $result, HoldWork $hold): View
    {
        match (RequestInput::sent($request, 'do')) {
            'hold' => $hold->result($result, true),
            'go-on' => $hold->result($result, false),
            'go-on-order' => $hold->order($result->order, false),
            'first' => $hold->turn($result, true),
            'last' => $hold->turn($result, false),
            default => abort(404),
        };

        return view('results.row-and-watch', ['result' => $result->refresh()->load('order'), 'since' => now()->getTimestamp()]);
    }
}
