<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Orders\Pages\CurrentDraft;
use App\Outside\Catalogue\AcceptCandidate;
use App\Outside\Catalogue\Candidate;
use App\Outside\Catalogue\LookedUp;
use App\Outside\Catalogue\LookUp;
use App\Sources\Models\Source;
use App\Sources\Queries\NamedSources;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** What a catalogue knows of sources: seen beside what is there, and noted only once it is accepted. */
final class CatalogueController
{
    private const MOST = 20;

    public function show(Request $request, LookUp $look, CurrentDraft $current, NamedSources $sources): View
    {
        $named = $request->has('sources') ? LineNumbers::read($request->query('sources'))
            : $current->find()?->sourceNumbers() ?? [];
        $words = trim(RequestInput::text($request, 'words'));
        $sources = $sources->all($named, self::MOST);

        return view('outside.catalogue', ['words' => $words, 'sources' => $sources->pluck('id')->join(','),
            'found' => array_values($sources->map(fn (Source $one): LookedUp => $look->lookUp($one, $words))->all())]);
    }

    /** Notes what is accepted of one, or of all at once. */
    public function accept(Request $request, AcceptCandidate $accept, NamedSources $sources): RedirectResponse
    {
        $chosen = $request->input('accept');
        $count = 0;
        $says = [];
        foreach (array_slice(is_array($chosen) ? $chosen : [], 0, self::MOST, true) as $id => $text) {
            $source = $sources->one((int) $id);
            $candidate = Candidate::of(is_string($text) ? json_decode($text, true) : null);
            if ($source !== null && $candidate !== null) {
                $says[] = $accept->accept($source, $candidate, $request->boolean('cover'));
                $count++;
            }
        }

        return redirect()->route('sources')->with('said', trim(match ($count) {
            0 => 'Nothing was accepted, so nothing was noted.',
            1 => 'Saved beside the source; results made from it will carry it.',
            default => "Saved beside $count sources; results made from them will carry it.",
        }.' '.implode(' ', array_unique(array_filter($says)))));
    }

    public function forget(Source $source, AcceptCandidate $accept): RedirectResponse
    {
        $accept->forget($source);

        return redirect()->route('source', $source)
            ->with('said', 'What the catalogue said is taken away; the source says what it said itself.');
    }
}
