<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\ChangeStandingOrder;
use App\Http\Asked;
use App\Models\StandingOrder;
use App\Queries\StandingPage;
use App\Values\SettingRefused;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Orders that take whatever lands in a folder. */
final class StandingController
{
    public function index(StandingPage $page): View
    {
        return view('standing.index', ['page' => $page, 'all' => $page->all(), 'standing' => new StandingOrder]);
    }

    public function show(StandingOrder $standing, StandingPage $page): View
    {
        [$names, $count] = $page->wouldTake($standing);

        return view('standing.show', ['page' => $page, 'standing' => $standing, 'log' => $page->log($standing), 'names' => $names,
            'count' => $count]);
    }

    public function store(Request $request, ChangeStandingOrder $change): RedirectResponse
    {
        try {
            $standing = $change->add($request->request->all());
        } catch (SettingRefused $refused) {
            return redirect()->route('standing')->withInput(Asked::again($request))->with('said', $refused->getMessage());
        }

        return redirect()->route('standing.show', $standing)
            ->with('said', 'It watches from now on. What lies there already counts as well.');
    }

    public function update(Request $request, StandingOrder $standing, ChangeStandingOrder $change): RedirectResponse
    {
        try {
            $change->with($standing, $request->request->all());
        } catch (SettingRefused $refused) {
            return redirect()->route('standing.show', $standing)->with('said', $refused->getMessage());
        }

        return redirect()->route('standing.show', $standing)->with('said', 'It is set, for what arrives from now on.');
    }

    public function work(Request $request, StandingOrder $standing): RedirectResponse
    {
        $standing->update(['paused' => $request->boolean('paused')]);

        return redirect()->route('standing.show', $standing)->with('said', $standing->paused
            ? 'It is paused: what arrives meanwhile is taken when it goes on.' : 'It goes on.');
    }

    public function destroy(StandingOrder $standing): RedirectResponse
    {
        $standing->delete();

        return redirect()->route('standing')
            ->with('said', 'The standing order is gone; its results stay, and so do the files in its folder.');
    }
}
