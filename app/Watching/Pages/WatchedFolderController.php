<?php

declare(strict_types=1);

namespace App\Watching\Pages;

use App\Http\RequestInput;
use App\Settings\Values\SettingRefused;
use App\Watching\Actions\ChangeWatchedFolder;
use App\Watching\Models\WatchedFolder;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/** Orders that take whatever lands in a folder. */
final class WatchedFolderController
{
    public function index(WatchedFolderPage $page): View
    {
        return view('standing.index', ['page' => $page, 'all' => $page->all(), 'standing' => new WatchedFolder]);
    }

    public function show(WatchedFolder $standing, WatchedFolderPage $page): View
    {
        [$names, $count] = $page->wouldTake($standing);

        return view('standing.show', ['page' => $page, 'standing' => $standing, 'log' => $page->log($standing), 'names' => $names,
            'count' => $count]);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function store(Request $request, ChangeWatchedFolder $change): RedirectResponse
    {
        try {
            $standing = $change->add($request->request->all());
        } catch (SettingRefused $refused) {
            return redirect()->route('standing')->withInput(RequestInput::again($request))->with('said', $refused->getMessage());
        }

        return redirect()->route('standing.show', $standing)
            ->with('said', 'It watches from now on. What lies there already counts as well.');
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function update(Request $request, WatchedFolder $standing, ChangeWatchedFolder $change): RedirectResponse
    {
        try {
            $change->with($standing, $request->request->all());
        } catch (SettingRefused $refused) {
            return redirect()->route('standing.show', $standing)->with('said', $refused->getMessage());
        }

        return redirect()->route('standing.show', $standing)->with('said', 'Saved. It applies to files that arrive from now on.');
    }

    public function work(Request $request, WatchedFolder $standing, ChangeWatchedFolder $change): RedirectResponse
    {
        $change->pause($standing, $request->boolean('paused'));

        return redirect()->route('standing.show', $standing)->with('said', $standing->paused
            ? 'It is paused: what arrives meanwhile is taken when it goes on.' : 'It goes on.');
    }

    public function destroy(WatchedFolder $standing, ChangeWatchedFolder $change): RedirectResponse
    {
        $change->drop($standing);

        return redirect()->route('standing')
            ->with('said', 'The standing order is gone; its results stay, and so do the files in its folder.');
    }
}
