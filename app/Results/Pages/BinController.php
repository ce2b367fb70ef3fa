<?php

declare(strict_types=1);

namespace App\Results\Pages;

use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Results\Actions\EmptyBin;
use App\Results\Queries\Bin;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** What was taken away: what is in the bin, back from it, gone for good. */
final class BinController
{
    public function show(Bin $bin): View
    {
        return view('bin', ['bin' => $bin]);
    }

    /** What is marked, back to where it was or gone for good. */
    public function update(Request $request, EmptyBin $empty): RedirectResponse
    {
        $results = LineNumbers::read($request->input('results'));
        $sources = LineNumbers::read($request->input('sources'));
        $marks = $request->input('replaced');
        $replaced = array_values(array_filter(is_array($marks) ? $marks : [], is_string(...)));
        $said = match (RequestInput::sent($request, 'do')) {
            'back' => $empty->back($results, $sources, $replaced),
            'destroy' => $empty->destroy($results, $sources, $replaced),
            'empty' => $empty->all(),
            default => abort(404),
        };

        return redirect()->route('bin')->with('said', $said);
    }
}
