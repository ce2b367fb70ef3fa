<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Asked;
use App\Http\DecodedSound;
use App\Models\Source;
use App\Models\Track;
use App\Queries\OpenWaveform;
use App\Values\CoreProcess;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** What a page needs to show a sound track and to play it from anywhere. */
final class TrackController
{
    private const MOST_STEPS = 40_000;

    private const MOST_SECONDS = 60;

    /** Steps of the ribbons between two samples, as {@see \Octavox\Core\Analysis\WaveformLayout} tells them. */
    public function ribbon(Request $request, Source $source, int $number, OpenWaveform $ribbons): Response
    {
        $ribbon = $ribbons->of($this->track($source, $number));
        if ($ribbon === null) {
            return response('', 204);
        }
        [$step, $first, $bytes] = $ribbon->window(Asked::number($request, 'from'), Asked::number($request, 'until', $ribbon->shape->samples), max(2, min(self::MOST_STEPS, Asked::number($request, 'most', 2000))));

        return response($bytes, 200, [
            'Content-Type' => 'application/octet-stream', 'Cache-Control' => 'no-store',
            'X-Step' => (string) $step, 'X-First' => (string) $first, 'X-Done' => (string) $ribbon->done, 'X-Samples' => (string) $ribbon->shape->samples,
        ]);
    }

    /** Decoded sound: interleaved 16-bit samples. */
    public function sound(Request $request, Source $source, int $number): StreamedResponse
    {
        $track = $this->track($source, $number);
        $count = min(Asked::number($request, 'count'), self::MOST_SECONDS * max(1, (int) $track->rate));
        $process = CoreProcess::of('excerpt', ['path' => $source->path, 'track' => $number, 'from' => max(0, Asked::number($request, 'from')), 'count' => max(0, $count)], brief: true);
        $process->setTimeout(self::MOST_SECONDS);

        return response()->stream(function () use ($process): void {
            $process->start();
            foreach ($process as $type => $part) {
                if ($type === 'out') {
                    echo $part;
                    flush();
                }
            }
        }, 200, ['Content-Type' => 'application/octet-stream', 'Cache-Control' => 'private, max-age=600', 'X-Accel-Buffering' => 'no']);
    }

    /** All of the track as a file that every browser plays. */
    public function hear(Request $request, Source $source, int $number): StreamedResponse
    {
        $track = $this->track($source, $number);
        $channels = $source->facts()?->track($number)?->sound?->layout->count() ?? abort(404);
        abort_if($track->heard_says !== null, 404);

        return DecodedSound::of($request, $source->path, ['track' => $number], $track->measured()->samples ?? (int) $track->samples, (int) $track->rate, $channels);
    }

    /** Stretches without sound, in samples. */
    public function silences(Request $request, Source $source, int $number, OpenWaveform $ribbons): JsonResponse
    {
        $track = $this->track($source, $number);
        $ribbon = $ribbons->of($track);
        $level = max(-90.0, min(0.0, Asked::real($request, 'level', -45.0)));
        $least = max(0.01, min(3600.0, Asked::real($request, 'least', 0.7)));

        return $ribbon === null
            ? response()->json(['says' => 'The track is still being listened to; ask again in a moment.'], 409)
            : response()->json(['silences' => $ribbon->silences(10 ** ($level / 20), (int) ($least * max(1, (int) $track->rate)))]);
    }

    private function track(Source $source, int $number): Track
    {
        return $source->tracks()->where('number', $number)->where('kind', 'sound')->firstOrFail();
    }
}
