<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\ChangeResults;
use App\Actions\HoldWork;
use App\Http\Asked;
use App\Models\Order;
use App\Models\Result;
use App\Queries\ResultList;
use App\Queries\Settings;
use App\Queries\WorkAtHand;
use App\Values\ManyResults;
use App\Values\WorkMark;
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
        match (Asked::sent($request, 'do')) {
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
        match (Asked::sent($request, 'do')) {
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
