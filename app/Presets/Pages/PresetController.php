<?php

declare(strict_types=1);

namespace App\Presets\Pages;

use App\Http\RequestInput;
use App\Presets\Actions\KeepPreset;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/** Recipes and destinations: the one page of each kind, its editor, and what goes in and out as files. */
final class PresetController
{
    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function index(PresetKind $kind, Presets $presets): View
    {
        return view('presets.index', ['kind' => $kind, 'presets' => $presets->all($kind)]);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function show(Request $request, PresetKind $kind, string $name, PresetEditor $editor): View
    {
        return view('presets.'.$kind->value, ['editor' => $editor->open($kind, $name, $request->query->all()) ?? abort(404)]);
    }

    /** @throws Failure */
    public function copy(PresetKind $kind, string $name, PresetEditor $editor, KeepPreset $keep): RedirectResponse
    {
        $copy = $editor->copy($kind, $name) ?? abort(404);

        return redirect()->route('preset', [$kind, $keep->add($copy)->name]);
    }

    public function update(Request $request, PresetKind $kind, string $name, PresetEditor $editor, KeepPreset $keep): RedirectResponse
    {
        try {
            $keep->change($kind, $name, $editor->document($kind, $name, $request->request->all()));
        } catch (Failure $failure) {
            return redirect()->back(fallback: route('preset', [$kind, $name]))->withInput(RequestInput::again($request))
                ->with('said', $failure->getMessage());
        }

        return redirect()->route('presets', $kind)->with('said', 'Kept as it is now.');
    }

    public function destroy(PresetKind $kind, string $name, KeepPreset $keep): RedirectResponse
    {
        $keep->remove($kind, $name);

        return redirect()->route('presets', $kind)->with('said', 'Deleted. Orders that were made with it stay as they are.');
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function star(Request $request, PresetKind $kind, string $name, KeepPreset $keep): RedirectResponse
    {
        $keep->star($kind, $name, $request->boolean('on'));

        return redirect()->route('presets', $kind);
    }

    /**
     * As a file that another Octavox reads.
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function export(PresetKind $kind, string $name, Presets $presets): Response
    {
        $known = $presets->all($kind)[$name] ?? abort(404);
        $json = json_encode($known->what->toArray(),
            JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);

        return response($json."\n", 200,
            ['Content-Type' => 'application/json', 'Content-Disposition' => "attachment; filename=\"$name.json\""]);
    }

    public function import(Request $request, PresetKind $kind, KeepPreset $keep): RedirectResponse
    {
        try {
            $kept = $keep->add($kind->read(RequestInput::document($request, 'file')));
        } catch (Failure $failure) {
            return redirect()->route('presets', $kind)->with('said', $failure->getMessage());
        }

        return redirect()->route('presets', $kind)->with('said', 'Taken in: '.$kept->title);
    }
}
