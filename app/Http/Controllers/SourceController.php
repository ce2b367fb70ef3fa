<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Asked;
use App\Http\CurrentDraft;
use App\Http\OpenedFile;
use App\Models\Source;
use App\Models\Track;
use App\Queries\Presets;
use App\Queries\SourceCover;
use App\Queries\SourceFits;
use App\Queries\SourceList;
use App\Values\MediaType;
use App\Values\PresetKind;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\File;

final class SourceController
{
    public function index(Request $request, SourceList $list, CurrentDraft $current, Presets $presets, SourceFits $fits): View
    {
        $find = trim(Asked::text($request, 'find'));
        $order = Asked::text($request, 'by');
        $show = Asked::text($request, 'show');
        $page = $list->page($find, $order, $show);
        $destination = $presets->destination(Asked::text($request, 'for'));
        $draft = $current->find()?->loadCount('lines');

        return view('sources.index', [
            'sources' => $page,
            'draft' => $draft,
            'destinations' => $presets->all(PresetKind::Destination),
            'for' => $destination->name ?? '',
            'fits' => $fits->of($destination, $page->items()),
            'ticked' => $list->ticked($draft, $page),
            'find' => $find,
            'show' => $show,
            'kinds' => $list->kinds(),
            'order' => $order === '' ? 'new' : $order,
            'reading' => $page->getCollection()->contains(fn (Source $source): bool => $source->state->value === 'reading'),
        ]);
    }

    public function show(Request $request, Source $source): View
    {
        $source->load('tracks');

        return view('sources.show',
            ['source' => $source, 'facts' => $source->facts(), 'chosen' => $source->soundTrack(Asked::number($request, 'track'))]);
    }

    /** The bytes themselves, in the ranges that a player asks for. */
    public function media(Source $source): OpenedFile
    {
        return OpenedFile::of($source->path, ['Content-Type' => MediaType::of((string) $source->container, $source->picture !== null)]);
    }

    public function cover(Source $source, SourceCover $covers): OpenedFile
    {
        $cover = $covers->of($source) ?? abort(404);

        [$type, $path] = $cover;

        return OpenedFile::of($path,
            ['Content-Type' => $type, 'X-Content-Type-Options' => 'nosniff', 'Cache-Control' => 'private, max-age=3600']);
    }

    /** Takes a source off the list; a file on a shelf stays where it is. */
    public function destroy(Source $source): RedirectResponse
    {
        if ($source->origin === 'upload') {
            File::deleteDirectory(dirname($source->path));
        }
        File::delete($source->soundTracks()->map(fn (Track $track): string => $track->waveformPath())->all());
        File::delete($source->coverPath());
        $source->delete();

        return redirect()->route('sources')->with('said', 'Taken off the list: '.$source->name);
    }
}
