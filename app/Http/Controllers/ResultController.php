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

        return view('deliveries.index', ['orders' => $list->page($order), 'only' => $order, 'since' => $since, 'open' => $open]);
    }

    /** What has changed since a moment, for a page that is open; asks again as long as anything is at work. */
    public function changes(Request $request, ResultList $list): View
    {
        $since = Carbon::createFromTimestamp(max(0, min(now()->getTimestamp(), Asked::number($request, 'since')) - 2));
        $now = now()->getTimestamp();
        // Asked first: what ends between the two questions is then still among the changes.
        $open = $list->anyOpen();

        return view('deliveries.changes', ['deliveries' => $list->changedSince($since), 'since' => $now, 'open' => $open]);
    }

    public function cancel(Result $delivery, ChangeResult $change): View
    {
        $change->cancel($delivery);

        return $this->row($delivery);
    }

    public function retry(Result $delivery, ChangeResult $change): View
    {
        $change->retry($delivery);

        return $this->row($delivery);
    }

    public function download(Result $delivery): BinaryFileResponse
    {
        abort_unless($delivery->isThere(), 404);

        return response()->download((string) $delivery->path, $delivery->name);
    }

    /** The sound of the result, decoded here for browsers that cannot. */
    public function hear(Request $request, Result $delivery, int $number): StreamedResponse
    {
        abort_unless($delivery->isThere(), 404);
        $sound = $delivery->carriedPlan()->sounds()[$number - 1] ?? abort(404);

        return DecodedSound::of($request, (string) $delivery->path, ['sound' => $number, 'stated' => $delivery->statedForm()], $sound->samples, $sound->audio->rate, $sound->audio->layout->count());
    }

    public function media(Result $delivery): OpenedFile
    {
        abort_unless($delivery->isThere(), 404);

        return OpenedFile::of((string) $delivery->path, ['Content-Type' => MediaType::of($delivery->carriedPlan()->format, $delivery->isFilm())]);
    }

    /** The ribbons of the source or of the result as a picture. */
    public function ribbon(Result $delivery, string $side, ResultWaveform $ribbons): Response
    {
        $ribbon = ($side === 'before' ? $ribbons->before($delivery) : $ribbons->after($delivery)) ?? abort(404);

        return response(WaveformDrawing::of($ribbon)->svg(), 200, ['Content-Type' => 'image/svg+xml', 'Cache-Control' => 'private, max-age=60']);
    }

    private function row(Result $delivery): View
    {
        return view('deliveries.row-and-watch', ['delivery' => $delivery, 'since' => now()->getTimestamp()]);
    }
}
