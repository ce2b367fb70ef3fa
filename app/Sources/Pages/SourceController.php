<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Files\MediaType;
use App\Http\ListOrder;
use App\Http\OpenedFile;
use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Lists\ListPlace;
use App\Orders\Pages\CurrentDraft;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;
use App\Sources\Actions\ChangeSource;
use App\Sources\Actions\GroupSources;
use App\Sources\Actions\RemoveSources;
use App\Sources\Actions\TakeAllTheSame;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\Source;
use App\Sources\Queries\SourceCover;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

final class SourceController
{
    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function index(Request $request, SourceList $list, CurrentDraft $current, Presets $presets, SourceFits $fits): View
    {
        $find = trim(RequestInput::text($request, 'find'));
        $order = ListOrder::read($request);
        $show = RequestInput::text($request, 'show');
        $page = $list->page($find, $order, $show, ListPlace::asked(RequestInput::text($request, 'before'), RequestInput::text($request,
            'after')));
        $destination = $presets->destination(RequestInput::text($request, 'for'));
        $draft = $current->find()?->loadCount('lines');

        return view('sources.index', [
            'sources' => $page,
            'draft' => $draft,
            'destinations' => $presets->all(PresetKind::Destination),
            'for' => $destination->name ?? '',
            'total' => $list->count($find, $show),
            'fits' => $fits->find($destination, $page->items),
            'ticked' => $list->ticked($draft, $page),
            'find' => $find,
            'show' => $show,
            'kinds' => $list->kinds(),
            'order' => $order,
            'copies' => $copies = $list->copies(),
            'reading' => $copies->contains('state', CopiedFolder::COPYING) || array_filter($page->items,
                fn (Source $source): bool => $source->state->value === 'reading') !== [],
        ]);
    }

    public function show(Request $request, Source $source): View
    {
        $source->load('tracks');

        return view('sources.show',
            ['source' => $source, 'facts' => $source->facts(), 'chosen' => $source->soundTrack(RequestInput::number($request, 'track'))]);
    }

    /** The bytes themselves, in the ranges that a player asks for. */
    public function media(Source $source): OpenedFile
    {
        return OpenedFile::of($source->path, ['Content-Type' => MediaType::name((string) $source->container, $source->picture !== null)]);
    }

    public function cover(Source $source, SourceCover $covers): OpenedFile
    {
        $cover = $covers->find($source) ?? abort(404);

        [$type, $path] = $cover;

        return OpenedFile::of($path,
            ['Content-Type' => $type, 'X-Content-Type-Options' => 'nosniff', 'Cache-Control' => 'private, max-age=3600']);
    }

    public function update(Request $request, Source $source, ChangeSource $change): RedirectResponse
    {
        $change->with($source, $request->request->all());

        return redirect()->route('source', $source)->with('said', 'Saved.');
    }

    /** One thing with many: with those that are chosen, or with all that are shown. */
    public function many(Request $request, CurrentDraft $current, SourceList $list, RemoveSources $remove,
        GroupSources $groups): RedirectResponse
    {
        $do = RequestInput::sent($request, 'do');
        $sources = $do === 'remove-shown' ? $list->all(RequestInput::sent($request, 'find'), RequestInput::sent($request, 'show'))
            : ($current->find()?->sourceNumbers() ?? []);
        if ($do === 'group') {
            $groups->into($sources, RequestInput::sent($request, 'title'));

            return redirect()->back(fallback: route('sources'))->with('said', 'They are grouped.');
        }
        abort_unless(in_array($do, ['remove', 'remove-shown'], true), 404);
        $count = $remove->remove($sources);

        return redirect()->route('sources')->with('said', $count === 1 ? 'One was taken off the list.' : number_format($count)
            .' were taken off the list.')->with('undo', $sources);
    }

    public function back(Request $request, RemoveSources $remove): RedirectResponse
    {
        $back = $remove->putBack(LineNumbers::read($request->input('sources')));

        return redirect()->route('sources')
            ->with('said', $back === 1 ? 'It is on the list again.' : number_format($back).' are on the list again.');
    }

    /** Taken in though its content is on the list already. */
    public function twice(Source $source, TakeAllTheSame $take): RedirectResponse
    {
        return redirect()->route('source', $source)->with('said', $take->take($source));
    }

    /** Takes a source off the list; it can be put back. */
    public function destroy(Source $source, RemoveSources $remove): RedirectResponse
    {
        $remove->remove([$source->id]);

        return redirect()->route('sources')->with('said', 'Taken off the list: '.$source->heading())->with('undo', [$source->id]);
    }
}
