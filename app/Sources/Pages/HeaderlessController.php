<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Http\DecodedSound;
use App\Http\RequestInput;
use App\Sources\Actions\StateFormat;
use App\Sources\Models\Source;
use App\Sources\Queries\HeaderlessFormats;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Octavox\Core\Failure;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Files without a header: what they may hold is tried by eye and ear, and said. */
final class HeaderlessController
{
    /** @throws Failure */
    public function show(Source $source, HeaderlessFormats $formats): View|RedirectResponse
    {
        if (! $source->mayBeHeaderless()) {
            return redirect()->route('source', $source);
        }
        $guesses = $formats->guessed($source);
        $known = $formats->for($source->name);

        return view('sources.headerless', ['source' => $source, 'guesses' => $guesses, 'known' => $known,
            'as' => $formats->tried($source->stated ?? $known->as ?? (string) ($guesses[0] ?? HeaderlessFormats::USUAL))]);
    }

    /** All of it as a WAV, were it what is said. */
    public function sound(Request $request, Source $source, HeaderlessFormats $formats): StreamedResponse
    {
        abort_unless($source->mayBeHeaderless(), 404);
        try {
            $as = $formats->tried(RequestInput::text($request, 'as'));
        } catch (Failure) {
            abort(400);
        }

        return DecodedSound::stream($request, $source->path, ['sound' => 1, 'stated' => (string) $as], $as->frames($source->bytes), $as
            ->rate,
            $as->channels);
    }

    public function update(Request $request, Source $source, StateFormat $state): RedirectResponse
    {
        abort_unless($source->mayBeHeaderless(), 404);
        $as = implode(':', array_map(fn (string $field): string => RequestInput::sent($request, $field), ['kind', 'rate', 'channels']));
        try {
            $state->state($source, $as, $request->boolean('remember'), RequestInput::sent($request, 'recorder'));
        } catch (Failure $wrong) {
            return redirect()->route('source.headerless', $source)->with('said', $wrong->getMessage());
        }

        return redirect()->route('source', $source)->with('said', 'It is read as that now.');
    }
}
