<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\RecordHeard;
use App\Models\Source;
use App\Models\Track;
use App\Values\CoreProcess;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Symfony\Component\Process\Exception\ProcessTimedOutException;

/** Listens to every sound track of a source in a process of its own: ribbons, levels, findings. */
final class ListenToSource implements ShouldQueue
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

    public function handle(RecordHeard $record): void
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

    private function listen(Source $source, Track $track, RecordHeard $record): void
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
}
