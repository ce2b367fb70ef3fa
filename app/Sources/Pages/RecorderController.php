<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Http\RequestInput;
use App\Sources\Models\CopiedFolder;
use App\Sources\Recorders\Recorders;
use App\Work\WorkKind;
use App\Work\WorkSignal;
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
    public function copy(Request $request, Recorders $recorders, WorkSignal $signal): RedirectResponse
    {
        $recorder = $recorders->named(RequestInput::sent($request, 'recorder'));
        if ($recorder === null) {
            return redirect()->route('recorders')->with('said', 'This recorder is not plugged in any more; nothing was lost.');
        }
        $copied = CopiedFolder::query()->firstOrNew(['shelf' => $recorder->shelf(), 'folder' => '']);
        $copied->fill(['state' => CopiedFolder::COPYING, 'done' => 0, 'says' => ''])->save();
        $signal->announce(WorkKind::Copying);

        return redirect()->route('recorders')->with('said', $recorder->name.' is being copied in; leave it plugged in until that is done.');
    }
}
