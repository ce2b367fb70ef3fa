<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Outside\WebPages\PageChoices;
use App\Outside\WebPages\WebPage;
use App\Outside\WebPages\WritePage;
use App\Results\Models\Result;
use App\Results\Pages\Archive;
use App\Results\Queries\ResultList;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Collection;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Plan\PlanUnreadable;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Pages with a player, for results to be put on a site. */
final class WebPageController
{
    public function __construct(private readonly WebPage $page, private readonly ResultList $list) {}

    public function show(Request $request): View
    {
        $asked = LineNumbers::read($request->query('results'));
        $results = $this->results($asked);
        $choices = $this->choices($request, $results);

        return view('outside.page', ['results' => $results, 'left' => count($asked) - $results->count(), 'choices' => $choices,
            'snippet' => $this->page->snippet($choices, $results->count()), 'query' => $request->query()]);
    }

    /**
     * The page as it will be, with the sound from where it lies now.
     *
     * @throws PlanUnreadable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function preview(Request $request): Response
    {
        $results = $this->results(LineNumbers::read($request->query('results')));

        return response($this->page->html($results, $this->choices($request, $results),
            fn (Result $one): string => route('result.media', $one, false)));
    }

    /**
     * The page beside its results, or all of it as one archive.
     *
     * @throws PlanUnreadable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function make(Request $request, WritePage $write): StreamedResponse|RedirectResponse
    {
        $results = $this->results(LineNumbers::read($request->input('results')));
        $choices = $this->choices($request, $results);
        if ($results->isEmpty()) {
            return redirect()->route('results')->with('said', 'None of these is sound that browsers play, so no page was made.');
        }
        if (RequestInput::sent($request, 'do') === 'beside') {
            return redirect()->route('page', $request->except(['_token', 'do']))->with('said', $write->beside($results, $choices));
        }

        return Archive::stream($results, $choices->title, [WebPage::name($choices) => $this->page->html($results, $choices)]);
    }

    /**
     * @param  list<int>  $numbers
     * @return Collection<int, Result>
     */
    private function results(array $numbers): Collection
    {
        return $this->page->playable($this->list->many(null, $numbers));
    }

    /** @param  Collection<int, Result>  $results */
    private function choices(Request $request, Collection $results): PageChoices
    {
        $first = $results->first();

        return PageChoices::of($request->all(), $first === null ? 'Player' : ($results->count() === 1
            ? pathinfo($first->name, PATHINFO_FILENAME) : $first->order->heading()));
    }
}
