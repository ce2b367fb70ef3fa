<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\BinResult;
use App\Actions\ChangeSettings;
use App\Http\Asked;
use App\Queries\SettingPage;
use App\Values\SettingRefused;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class SettingController
{
    public function show(SettingPage $page): View
    {
        return view('settings', ['page' => $page]);
    }

    public function update(Request $request, ChangeSettings $change): RedirectResponse
    {
        $change->with($request->request->all());

        return redirect()->route('settings')->with('said', 'It is set.');
    }

    public function open(Request $request, ChangeSettings $change): RedirectResponse
    {
        try {
            $change->open(Asked::sent($request, 'name'), Asked::sent($request, 'path'), $request->boolean('writable'));
        } catch (SettingRefused $refused) {
            return redirect()->route('settings')->withInput(Asked::again($request))->with('said', $refused->getMessage());
        }

        return redirect()->route('settings')->with('said', 'The shelf is open.');
    }

    /** Closes a shelf, or says whether results may be put on it. */
    public function shelf(Request $request, ChangeSettings $change): RedirectResponse
    {
        $name = Asked::sent($request, 'name');
        match (Asked::sent($request, 'do')) {
            'close' => $change->close($name),
            'allow' => $change->allow($name, true),
            'forbid' => $change->allow($name, false),
            default => abort(404),
        };

        return redirect()->route('settings')->with('said', 'It is set. What lies on the shelf stays as it is.');
    }

    public function emptyBin(BinResult $bin): RedirectResponse
    {
        $files = $bin->empty();

        return redirect()->route('settings')->with('said', $files === 1 ? 'One file was deleted for good.'
            : number_format($files).' files were deleted for good.');
    }
}
