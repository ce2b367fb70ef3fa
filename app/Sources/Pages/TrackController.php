<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Http\DecodedSound;
use App\Http\RequestInput;
use App\Processes\CoreProcess;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Queries\OpenWaveform;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** What a page needs to show a sound track and to play it from anywhere. */
final class TrackController
{
    private const MOST_STEPS = 40_000;

    private const MOST_SECONDS = 60;

    /**
     * Steps of the waveforms between two samples, as {@see \Octavox\Core\Analysis\WaveformLayout} tells them.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function waveform(Request $request, Source $source, int $number, OpenWaveform $waveforms): Response
    {
        $waveform = $waveforms->open($this->track($source, $number));
        if ($waveform === null) {
            return response('', 204);
        }
        [$step, $first, $bytes] = $waveform->window(RequestInput::number($request, 'from'),
            RequestInput::number($request, 'until', $waveform->layout->samples),
            max(2, min(self::MOST_STEPS, RequestInput::number($request, 'most', 2000))));

        return response($bytes, 200, [
            'Content-Type' => 'application/octet-stream', 'Cache-Control' => 'no-store',
            'X-Step' => (string) $step, 'X-First' => (string) $first, 'X-Done' => (string) $waveform->done,
            'X-Samples' => (string) $waveform->layout->samples,
        ]);
    }

    /** Decoded sound: interleaved 16-bit samples. */
    public function sound(Request $request, Source $source, int $number): StreamedResponse
    {
        $track = $this->track($source, $number);
        $count = min(RequestInput::number($request, 'count'), self::MOST_SECONDS * max(1, (int) $track->rate));
        $process = CoreProcess::prepare('excerpt', ['path' => $source->path, 'stated' => $source->stated, 'track' => $number,
            'from' => max(0, RequestInput::number($request, 'from')), 'count' => max(0, $count)], brief: true);
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
        abort_if($track->analysis_error !== null, 404);

        return DecodedSound::stream($request, $source->path, ['track' => $number, 'stated' => $source->stated],
            $track->measured()->samples ?? (int) $track->samples,
            (int) $track->rate, $channels);
    }

    /**
     * Stretches without sound, in samples.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function silences(Request $request, Source $source, int $number, OpenWaveform $waveforms): JsonResponse
    {
        $track = $this->track($source, $number);
        $waveform = $waveforms->open($track);
        $level = max(-90.0, min(0.0, RequestInput::real($request, 'level', -45.0)));
        $least = max(0.01, min(3600.0, RequestInput::real($request, 'least', 0.7)));

        return $waveform === null
            ? response()->json(['says' => 'The track is still being analysed; ask again in a moment.'], 409)
            : response()->json(['silences' => $waveform->silences(10 ** ($level / 20), (int) ($least * max(1, (int) $track->rate)))]);
    }

    private function track(Source $source, int $number): Track
    {
        return $source->soundTracks()->firstWhere('number', $number) ?? abort(404);
    }
}
