<?php

declare(strict_types=1);

namespace App\Upkeep;

use App\Presets\Actions\PresetFiles;
use App\Processes\FileLock;
use App\Results\Actions\ClearSources;
use App\Results\Actions\EndResult;
use App\Results\Models\Result;
use App\Results\Queries\NextResult;
use App\Results\Queries\ResultRoom;
use App\Results\Values\ResultState;
use App\Sources\Actions\CompleteUpload;
use App\Sources\Actions\CopyFile;
use App\Sources\Actions\TakeIn;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Models\Upload;
use App\Sources\Queries\PendingWork;
use App\Work\Claims;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;

/**
 * Puts everything right that a killed process can leave: rows that nobody works on, fewer jobs than rows wait, uploads that are complete
 * and no source. Run at the start and every few seconds; each row by itself, so that one bad row stops
 * nothing.
 */
final class Recover
{
    /** The journal of a file that is just done may stand a moment longer than its row. */
    private const SECONDS_TO_SETTLE = 5;

    public function __construct(private readonly EndResult $end, private readonly CompleteUpload $complete,
        private readonly PresetFiles $presets, private readonly NextResult $next,
        private readonly ClearSources $clear, private readonly TakeIn $take,
        private readonly ResultRoom $room, private readonly Claims $claims, private readonly WorkSignal $signal,
        private readonly PendingWork $pending) {}

    /** At the very start nobody works: whatever was being done is lost, and jobs with it. */
    public function atStart(): void
    {
        DB::table('jobs')->delete();
        $this->claims->releaseAll();
        // Drawings that were begun are begun again when somebody looks at them.
        File::delete(File::glob(config()->string('octavox.home').'/waveforms/*.part'));
        // What a later version measured is measured again.
        $strange = Track::query()->whereNotNull('analysis')->lazyById()->filter(fn (Track $track): bool => $track->measured() === null);
        $this->each($strange->pluck('id')->all(), fn (int $id) => Track::query()->whereKey($id)->update(['analysis' => null]));
        $this->each(Result::query()->where('state', ResultState::Making)->pluck('id')->all(), $this->takeUp(...));
        // Recordings that were joined, and of which no source was made before somebody died.
        $this->guarded(function (): void {
            foreach (CopyFile::formerlyJoined() as $path) {
                $this->take->copied($path, '', basename($path), '', '');
            }
        });
        $this->presets->writeAll();
        // What another version planned is planned again.
        Cache::flush();
        $this->run(start: true);
    }

    public function run(bool $start = false): void
    {
        $this->guarded($this->claims->releaseDead(...));
        $lost = $this->claims->unheld(WorkKind::Making, Result::query()->where('state', ResultState::Making), 'results.id');
        $this->each($lost->pluck('id')->all(), $this->takeUp(...));
        foreach (Result::query()->where('state', ResultState::Waiting)->where('waits_for', Result::ROOM)->get() as $result) {
            $this->guarded(fn () => $this->room->isThereFor($result) ? $result->update(['waits_for' => null]) : null);
        }
        $this->forgetJournals($start ? 0 : self::SECONDS_TO_SETTLE);
        $this->guarded($this->clear->run(...));
        $this->guarded($this->drawAgain(...));
        $this->guarded(fn () => $this->signal->ensure(WorkKind::Making, $this->next->isHeld() ? 0 : $this->next->eligible()->count()));
        $this->ensure(WorkKind::Reading, $this->pending->readings(), 'sources.id');
        $this->ensure(WorkKind::Analysis, $this->pending->analyses(), 'tracks.id');
        $this->ensure(WorkKind::Copying, $this->pending->copies(), 'copied_folders.id');
        $this->ensure(WorkKind::Borders, $this->pending->borders(), 'packet_borders.source_id');
        foreach (Upload::query()->whereNull('source_id')->whereColumn('received', 'bytes')->get() as $upload) {
            $this->guarded(fn () => $this->complete->complete($upload));
        }
    }

    /** A drawing that was begun and that nobody holds any more is begun again. */
    private function drawAgain(): void
    {
        foreach (File::glob(config()->string('octavox.home').'/waveforms/result-*.waveform.part') as $part) {
            $id = (int) substr(basename($part), strlen('result-'));
            $lock = FileLock::take("drawing-$id");
            if ($lock !== null) {
                File::delete($part);
                $lock->release();
                $this->signal->request(WorkKind::Drawings, $id);
            }
        }
    }

    /** A journal stands until its row says that the file is done; whoever died just then left it. */
    private function forgetJournals(int $settled): void
    {
        foreach (File::glob(config()->string('octavox.home').'/journal/[0-9]*.json') as $path) {
            if (@filemtime($path) <= time() - $settled && ! Result::query()->whereKey((int) basename($path))
                ->where('state', ResultState::Making)->exists()) {
                File::delete($path);
            }
        }
    }

    /**
     * @param  array<array-key, mixed>  $ids
     * @param  callable(int): mixed  $do
     */
    private function each(array $ids, callable $do): void
    {
        foreach ($ids as $id) {
            $this->guarded(fn () => $do(is_numeric($id) ? (int) $id : 0));
        }
    }

    /** @param  callable(): mixed  $do  whatever befalls it stops nothing else */
    private function guarded(callable $do): void
    {
        try {
            $do();
        } catch (\Throwable $trouble) {
            report($trouble);
        }
    }

    private function takeUp(int $id): void
    {
        $result = Result::query()->find($id);
        if ($result === null || $result->state !== ResultState::Making) {
            return;
        }
        try {
            $plan = $result->plannedAs();
        } catch (\Throwable $broken) {
            $this->end->failed($result, $broken instanceof Failure ? $broken : InternalFault::of($broken));

            return;
        }
        $this->end->interrupted($result, Interrupted::now($plan->source->path), isOfItself: false);
    }

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     */
    private function ensure(WorkKind $kind, Builder $rows, string $number): void
    {
        $waiting = $this->claims->unheld($kind, $rows, $number);
        $this->guarded(fn () => $this->signal->ensure($kind, $waiting->distinct()->count($number)));
    }
}
