<?php

declare(strict_types=1);

namespace App\Results\Pages;

use App\Database\ChangeMark;
use App\Files\MediaType;
use App\Http\DecodedSound;
use App\Http\OpenedFile;
use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Lists\ListPlace;
use App\Orders\Models\Order;
use App\Orders\Pages\CurrentDraft;
use App\Results\Actions\ChangeResult;
use App\Results\Actions\ChangeResults;
use App\Results\Actions\DraftAgain;
use App\Results\Models\Result;
use App\Results\Queries\OrderResults;
use App\Results\Queries\ResultList;
use App\Results\Queries\ResultSearch;
use App\Results\Queries\ResultWaveform;
use App\Results\Values\ManyResults;
use App\Sources\Values\WaveformDrawing;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Carbon;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Failure;
use Octavox\Core\Plan\PlanUnreadable;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class ResultController
{
    public function index(Request $request, ResultList $list, ChangeMark $changes): View
    {
        $show = RequestInput::text($request, 'show');
        $search = new ResultSearch(RequestInput::number($request, 'order') ?: null, trim(RequestInput::text($request, 'find')),
            isset(ResultSearch::SHOWN[$show]) ? $show : '', RequestInput::text($request, 'in'));
        $since = now()->getTimestamp();
        $mark = $changes->read('work');
        $open = $list->anyOpen();
        $orders = $list->page($search, ListPlace::asked(RequestInput::text($request, 'before'), RequestInput::text($request, 'after')));

        return view('results.index', ['orders' => $orders, 'progress' => $list->progress(array_map(fn (OrderResults $one): Order => $one
            ->order, $orders->items)), 'search' => $search,
            'since' => $since, 'open' => $open, 'mark' => $mark]);
    }

    /** What has changed since a moment, for a page that is open; asks again as long as anything is at work. Nothing new takes no words. */
    public function changes(Request $request, ResultList $list, ChangeMark $changes): View|Response
    {
        $mark = $changes->read('work');
        if (RequestInput::number($request, 'mark') === $mark) {
            return response()->noContent();
        }
        $since = Carbon::createFromTimestamp(max(0, min(now()->getTimestamp(), RequestInput::number($request, 'since')) - 2));
        $now = now()->getTimestamp();
        // Asked first: what ends between the two questions is then still among the changes.
        $open = $list->anyOpen();

        $results = $list->changedSince($since);

        return view('results.changes', ['results' => $results, 'progress' => $list->progress($results->pluck('order')->unique('id')->all()),
            'since' => $now, 'open' => $open, 'mark' => $mark]);
    }

    /** One thing with many: those of an order, or those that are marked. */
    public function many(Request $request, ResultList $list, ChangeResults $change,
        DiscSheets $sheets): StreamedResponse|RedirectResponse
    {
        $what = ManyResults::tryFrom(RequestInput::sent($request, 'do')) ?? abort(404);
        $order = $request->integer('order') ?: null;
        $results = $list->many($order, LineNumbers::read($request->input('results')));
        if ($what === ManyResults::Download) {
            return Archive::stream($results, $order === null ? 'Octavox results' : ($results->first()?->order
                ->heading() ?? 'Octavox results'));
        }
        $next = $what->page();
        if ($next !== null) {
            return redirect()->route($next, ['results' => implode(',', $results->modelKeys())]);
        }
        if ($what === ManyResults::Disc) {
            try {
                return Archive::stream($results, 'Audio disc', ['Audio disc.cue' => $sheets->write($results)]);
            } catch (Failure $refused) {
                return redirect()->back(fallback: route('results'))->with('said', $refused->getMessage());
            }
        }

        return redirect()->back(fallback: route('results'))->with('said', $change->each($results, $what));
    }

    /** A draft that asks what was asked of a result, for other sources. */
    public function again(Result $result, DraftAgain $again, CurrentDraft $current): RedirectResponse
    {
        $draft = $again->ofResult($result);
        $current->set($draft);

        return redirect()->route('order', $draft);
    }

    public function cancel(Result $result, ChangeResult $change): View
    {
        $change->cancel($result);

        return $this->row($result);
    }

    public function retry(Result $result, ChangeResult $change): View
    {
        $change->retry($result);

        return $this->row($result);
    }

    public function download(Result $result): OpenedFile
    {
        abort_unless($result->isThere(), 404);

        // It may lie on a shelf, where others put what they like in its place.
        return OpenedFile::of((string) $result->path)->setContentDisposition('attachment', $result->name, Archive::plain($result->name));
    }

    /**
     * The sound of the result, decoded here for browsers that cannot.
     *
     * @throws PlanUnreadable
     */
    public function hear(Request $request, Result $result, int $number): StreamedResponse
    {
        abort_unless($result->isThere(), 404);
        $sound = $result->plannedAs()->sounds[$number - 1] ?? abort(404);

        return DecodedSound::stream($request, (string) $result->path, ['sound' => $number, 'stated' => $result->statedFormat()],
            $sound->samples, $sound->audio->rate, $sound->audio->layout->count());
    }

    /** @throws PlanUnreadable */
    public function media(Result $result): OpenedFile
    {
        abort_unless($result->isThere(), 404);

        return OpenedFile::of((string) $result->path,
            ['Content-Type' => MediaType::name($result->plannedAs()->target->container, $result->isVideo())]);
    }

    /**
     * The waveforms of the source or of the result as a picture.
     *
     * @throws BytesMissing
     * @throws PlanUnreadable
     * @throws FileUnreadable
     */
    public function waveform(Result $result, string $side, ResultWaveform $waveforms): Response
    {
        $waveform = ($side === 'before' ? $waveforms->before($result) : $waveforms->after($result)) ?? abort(404);

        return response(WaveformDrawing::of($waveform)->svg(), 200,
            ['Content-Type' => 'image/svg+xml', 'Cache-Control' => 'private, max-age=60']);
    }

    /**
     * The same picture in its place on the page, which asks again while it is being drawn.
     *
     * @throws PlanUnreadable
     */
    public function picture(Result $result, string $side, ResultWaveform $waveforms): View
    {
        $drawn = ($side === 'before' ? $waveforms->before($result) : $waveforms->after($result)) !== null;

        return view('results.picture',
            ['result' => $result, 'side' => $side, 'drawn' => $drawn, 'drawing' => $waveforms->isBeingDrawn($result, $side)]);
    }

    /** What its row shows once it is opened: it can be heard, with all that was measured. */
    /** @throws PlanUnreadable */
    public function receipt(Result $result): View
    {
        return view('results.receipt', ['result' => $result->load('order'), 'sounds' => PlayableSounds::find($result)]);
    }

    /** What the process that made it said of its own troubles, where it failed. */
    public function log(Result $result): Response
    {
        abort_if($result->log() === '', 404);

        return response($result->log(), 200, ['Content-Type' => 'text/plain; charset=utf-8', 'Cache-Control' => 'no-store']);
    }

    private function row(Result $result): View
    {
        return view('results.row-and-watch', ['result' => $result->load('order'), 'since' => now()->getTimestamp()]);
    }
}
