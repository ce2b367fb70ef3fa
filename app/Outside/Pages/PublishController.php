<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Http\OpenedFile;
use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Outside\Publishing\Hosts;
use App\Outside\Publishing\OfferToHost;
use App\Results\Queries\ResultList;
use App\Settings\Queries\Settings;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Places to publish: episodes are offered, and taken or refused with reasons. */
final class PublishController
{
    public function __construct(private readonly Hosts $hosts) {}

    public function index(Request $request, ResultList $list): View
    {
        $results = LineNumbers::read($request->query('results'));

        return view('outside.publish', ['hosts' => $this->hosts->all(), 'results' => $list->many(null, $results)]);
    }

    public function offer(Request $request, ResultList $list, OfferToHost $offer): RedirectResponse
    {
        $host = $this->hosts->named(RequestInput::sent($request, 'host')) ?? abort(404);
        $answers = $offer->all($host, $list->many(null, LineNumbers::read($request->input('results'))));

        return redirect()->route('publish', ['results' => RequestInput::sent($request, 'results')])->with('answers', $answers);
    }

    public function withdraw(Request $request): RedirectResponse
    {
        $host = $this->hosts->named(RequestInput::sent($request, 'host')) ?? abort(404);
        $host->withdraw(RequestInput::sent($request, 'guid'));

        return redirect()->route('publish')->with('said', 'It is withdrawn; what it was made of stays.');
    }

    public function feed(Request $request, string $host, Settings $settings): Response
    {
        $found = $this->hosts->named($host) ?? abort(404);

        return response($found->feed(PublicAddress::find($settings, $request).'/hosted/'.rawurlencode($host)))->header('Content-Type',
            'application/rss+xml; charset=utf-8');
    }

    public function episode(string $host, string $file): OpenedFile
    {
        $found = $this->hosts->named($host) ?? abort(404);
        $episode = $found->episode($file) ?? abort(404);

        return OpenedFile::of($found->path($episode) ?? abort(404), ['Content-Type' => $episode->type]);
    }
}
