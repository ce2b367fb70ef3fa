<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Http\RequestInput;
use App\Sources\Actions\BeginCopy;
use App\Sources\Recorders\Recorders;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class RecorderController
{
    public function index(RecorderList $list): View
    {
        $recorders = $list->all();

        return view('outside.recorders', ['recorders' => $recorders,
            'copying' => array_filter($recorders, fn (PluggedRecorder $one): bool => $one->isCopying()) !== []]);
    }

    /** Copies what is new on one, or goes on where a copy broke off. */
    public function copy(Request $request, Recorders $recorders, BeginCopy $copy): RedirectResponse
    {
        $recorder = $recorders->named(RequestInput::sent($request, 'recorder'));
        if ($recorder === null) {
            return redirect()->route('recorders')->with('said', 'This recorder is no longer plugged in; nothing was lost.');
        }
        $copy->begin($recorder->shelf(), '');

        return redirect()->route('recorders')->with('said', $recorder->name.' is being copied in; leave it plugged in until that is done.');
    }
}
