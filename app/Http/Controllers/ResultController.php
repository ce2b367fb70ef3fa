<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\ChangeResult;
use App\Http\Asked;
use App\Http\DecodedSound;
use App\Http\OpenedFile;
use App\Models\Result;
use App\Queries\ResultList;
use App\Queries\ResultWaveform;
use App\Values\MediaType;
use App\Values\WaveformDrawing;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Carbon;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class ResultController
{
    public function index(Request $request, ResultList $list): View
    {
        $order = Asked::number($request, 'order') ?: null;
        $since = now()->getTimestamp();
        $open = $list->anyOpen();

        return view('results.index', ['orders' => $list->page($order), 'only' => $order, 'since' => $since, 'open' => $open]);
    }

    /** What has changed since a moment, for a page that is open; asks again as long as anything is at work. */
    public function changes(Request $request, ResultList $list): View
    {
        $since = Carbon::createFromTimestamp(max(0, min(now()->getTimestamp(), Asked::number($request, 'since')) - 2));
        $now = now()->getTimestamp();
        // Asked first: what ends between the two questions is then still among the changes.
        $open = $list->anyOpen();

        return view('results.changes', ['results' => $list->changedSince($since), 'since' => $now, 'open' => $open]);
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

    public function download(Result $result): BinaryFileResponse
    {
        abort_unless($result->isThere(), 404);

        return response()->download((string) $result->path, $result->name);
    }

    /** The sound of the result, decoded here for browsers that cannot. */
    public function hear(Request $request, Result $result, int $number): StreamedResponse
    {
        abort_unless($result->isThere(), 404);
        $sound = $result->plannedAs()->sounds[$number - 1] ?? abort(404);

        return DecodedSound::of($request, (string) $result->path, ['sound' => $number, 'stated' => $result->statedFormat()],
            $sound->samples, $sound->audio->rate, $sound->audio->layout->count());
    }

    public function media(Result $result): OpenedFile
    {
        abort_unless($result->isThere(), 404);

        return OpenedFile::of((string) $result->path,
            ['Content-Type' => MediaType::of($result->plannedAs()->target->container, $result->isVideo())]);
    }

    /** The waveforms of the source or of the result as a picture. */
    public function waveform(Result $result, string $side, ResultWaveform $waveforms): Response
    {
        $waveform = ($side === 'before' ? $waveforms->before($result) : $waveforms->after($result)) ?? abort(404);

        return response(WaveformDrawing::of($waveform)->svg(), 200,
            ['Content-Type' => 'image/svg+xml', 'Cache-Control' => 'private, max-age=60']);
    }

    /** The same picture in its place on the page, which asks again while it is being drawn. */
    public function picture(Result $result, string $side, ResultWaveform $waveforms): View
    {
        $drawn = ($side === 'before' ? $waveforms->before($result) : $waveforms->after($result)) !== null;

        return view('results.picture',
            ['result' => $result, 'side' => $side, 'drawn' => $drawn, 'drawing' => $waveforms->isBeingDrawn($result, $side)]);
    }

    /** What the process that made it said of its own troubles, where it failed. */
    public function log(Result $result): Response
    {
        abort_if($result->log() === '', 404);

        return response($result->log(), 200, ['Content-Type' => 'text/plain; charset=utf-8', 'Cache-Control' => 'no-store']);
    }

    private function row(Result $result): View
    {
        return view('results.row-and-watch', ['result' => $result, 'since' => now()->getTimestamp()]);
    }
}
