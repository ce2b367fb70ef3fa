<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\RecordAnalysis;
use App\Models\Source;
use App\Models\Track;
use App\Values\CoreProcess;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;

/** Listens to every sound track of a source in a process of its own: ribbons, levels, findings. */
final class AnalyzeSource implements ShouldQueue
{
    use Queueable;

    /** Seconds without a word after which listening is given up. */
    private const SECONDS_SILENT = 120;

    public int $tries = 2;

    public int $timeout = 0;

    public function __construct(private readonly int $source)
    {
        $this->onQueue('listening');
    }

    public function handle(RecordAnalysis $record): void
    {
        $source = Source::query()->with('tracks')->find($this->source);
        if ($source === null || ! $source->isReady()) {
            return;
        }
        foreach ($source->soundTracks() as $track) {
            if ($track->heard === null && $track->heard_says === null) {
                $this->listen($source, $track, $record);
            }
        }
    }

    private function listen(Source $source, Track $track, RecordAnalysis $record): void
    {
        File::ensureDirectoryExists(dirname($track->ribbonPath()));
        $process = CoreProcess::of('listening', ['path' => $source->path, 'track' => $track->number, 'ribbon' => $track->ribbonPath()]);
        $process->setTimeout(null)->setIdleTimeout(self::SECONDS_SILENT);
        $said = '';
        try {
            $process->run(function (string $type, string $part) use (&$said): void {
                // Only the last lines count; the others tell how far it is.
                $said = $type === 'out' ? substr($said.$part, -262144) : $said;
            });
        } catch (ProcessSignaledException $ended) {
            // Stopped from outside, it is begun again; a decoder that dies of the file does so every time.
            if (in_array($ended->getSignal(), [SIGHUP, SIGINT, SIGKILL, SIGTERM], true) && $this->attempts() < $this->tries) {
                throw $ended;
            }
            $record->unheard($track, 'Listening to this track ended without a word, most likely because the file is damaged.');

            return;
        } catch (ProcessTimedOutException) {
            $record->unheard($track, 'Listening to this track took too long and was ended, most likely because the file is damaged.');

            return;
        }
        $lines = explode("\n", trim($said));
        $last = json_decode($lines[count($lines) - 1], true);
        if (is_array($last) && is_array($last['heard'] ?? null)) {
            $record->heard($source, $track, $last['heard']);
        } else {
            $error = is_array($last) && is_array($last['error'] ?? null) ? (string) ($last['error']['message'] ?? '') : '';
            $record->unheard($track, $error === '' ? 'Listening to this track ended without a word, most likely because the file is damaged.' : $error);
        }
    }

    /** No track stays on the page as being listened to for ever. */
    public function failed(?\Throwable $why): void
    {
        foreach (Source::query()->with('tracks')->find($this->source)?->soundTracks() ?? [] as $track) {
            if ($track->isBeingHeard()) {
                app(RecordAnalysis::class)->unheard($track, sprintf('Listening to this track was interrupted %d times and is not begun again by itself; the file is unharmed. Take it off the list and bring it in again to try once more.', $this->tries));
            }
        }
    }
}
