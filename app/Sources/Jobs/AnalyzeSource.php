<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Processes\FileLock;
use App\Sources\Actions\RecordAnalysis;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Failure;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Parallel\Abandoned;

/** Analyses every sound track of a source in a process of its own: waveforms, levels, findings. */
final class AnalyzeSource implements ShouldQueue
{
    use Queueable;

    /** Seconds without a word after which it is given up. */
    private const SECONDS_SILENT = 120;

    private const SECONDS_AT_LEAST = 300.0;

    private const BYTES_A_SECOND = 200_000;

    public int $tries = 2;

    public int $timeout = 0;

    public function __construct(private readonly int $source)
    {
        $this->onQueue('analysis');
    }

    public function handle(RecordAnalysis $record): void
    {
        $source = Source::query()->with('tracks')->find($this->source);
        if ($source === null || ! $source->isReady()) {
            return;
        }
        $lock = FileLock::take('analysis-'.$source->id);
        if ($lock === null) {
            // Another worker is at it.
            return;
        }
        foreach ($source->soundTracks() as $track) {
            if ($track->refresh()->isBeingAnalyzed()) {
                $this->analyze($source, $track, $record);
            }
        }
        $lock->release();
    }

    private function analyze(Source $source, Track $track, RecordAnalysis $record): void
    {
        Folder::ready(dirname($track->waveformPath()));
        // However slow a machine is, so many bytes are read in a second.
        $seconds = self::SECONDS_AT_LEAST + $source->bytes / self::BYTES_A_SECOND;
        $child = new AskedChild('analysis', $seconds, self::SECONDS_SILENT, isBrief: false);
        try {
            $answer = $child->answer(['path' => $source->path, 'stated' => $source->stated, 'track' => $track->number,
                'waveform' => $track->waveformPath()],
                $source->path, "source-$source->id.log", fn (): bool => Source::query()->whereKey($source->id)->exists());
            $record->analyzed($source, $track, Measurements::fromArray(is_array($answer['analysis'] ?? null) ? $answer['analysis'] : []));
        } catch (Abandoned) {
            // The source was taken off the list meanwhile; it is analysed when it comes back.
            return;
        } catch (Interrupted $stopped) {
            if ($this->attempts() < $this->tries) {
                throw $stopped;
            }
            $record->failed($track, $stopped->getMessage());
        } catch (Failure $failure) {
            $record->failed($track, $failure->getMessage());
        }
    }

    /** No track stays on the page as being analysed for ever. */
    public function failed(?\Throwable $why): void
    {
        $says = 'Analysing this track was interrupted %d times and is not begun again by itself; the file is unharmed. Take it off the '
            .'list and bring it in again to try once more.';
        foreach (Source::query()->with('tracks')->find($this->source)?->soundTracks() ?? [] as $track) {
            if ($track->isBeingAnalyzed()) {
                app(RecordAnalysis::class)->failed($track, sprintf($says, $this->tries));
            }
        }
    }
}
