<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Processes\FileLock;
use App\Sources\Actions\RecordAnalysis;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Queries\PendingWork;
use App\Work\NextRow;
use App\Work\WorkKind;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Parallel\Abandoned;

/** Analyses the next sound track in a process of its own: waveform, levels, findings. */
final class AnalyzeTrack implements ShouldQueue
{
    use Queueable;

    /** Seconds without a word after which it is given up. */
    private const SECONDS_SILENT = 120;

    private const SECONDS_AT_LEAST = 300.0;

    private const BYTES_A_SECOND = 200_000;

    private const TRIES = 2;

    public int $tries = 0;

    public int $timeout = 0;

    public function handle(NextRow $next, PendingWork $pending, RecordAnalysis $record): void
    {
        $next->work(WorkKind::Analysis, $pending->analyses(), 'tracks.id', self::TRIES,
            fn (int $id) => $this->analyze(Track::query()->find($id), $record),
            fn (int $id, ?\Throwable $why) => self::giveUp(Track::query()->find($id), $why, $record));
    }

    /** @throws Interrupted */
    private function analyze(?Track $track, RecordAnalysis $record): void
    {
        $source = $track === null ? null : Source::query()->find($track->source_id);
        // The file of its waveform is written by one process at a time, also where the source was read again meanwhile.
        $lock = $source === null ? null : FileLock::take("analysis-$source->id");
        if ($track === null || $source === null || $lock === null) {
            return;
        }
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
        } catch (Interrupted $stopped) {
            throw $stopped;
        } catch (Failure $failure) {
            $record->failed($track, $failure->getMessage());
        } finally {
            $lock->release();
        }
    }

    /** No track stays on the page as being analysed for ever. */
    private static function giveUp(?Track $track, ?\Throwable $why, RecordAnalysis $record): void
    {
        if ($track !== null) {
            $says = sprintf('Analysing this track was interrupted %d times and is not begun again by itself; the file is unharmed. Take it '
                .'off the list and bring it in again to try once more.', self::TRIES);
            $record->failed($track, $why === null ? $says : InternalFault::of($why)->getMessage());
        }
    }
}
