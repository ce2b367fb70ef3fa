<?php

declare(strict_types=1);

namespace App\Upkeep;

use App\Presets\Actions\PresetFiles;
use App\Processes\HeldJobs;
use App\Results\Actions\ClearSources;
use App\Results\Actions\EndResult;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Queries\NextResult;
use App\Results\Values\ResultState;
use App\Sources\Actions\CompleteUpload;
use App\Sources\Actions\CopyFile;
use App\Sources\Actions\TakeIn;
use App\Sources\Jobs\AnalyzeSource;
use App\Sources\Jobs\CopyFolderIn;
use App\Sources\Jobs\FindBorders;
use App\Sources\Jobs\ReadSource;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Models\Upload;
use App\Sources\Values\SourceState;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;

/**
 * Puts everything right that a killed process can leave: rows that nobody works on, rows that no job will ever come to, jobs that nobody
 * holds, uploads that are complete and no source. Run at the start and every few seconds; each row by itself, so that one bad row stops
 * nothing.
 */
final class Recover
{
    /** A worker gives a sign every few seconds. */
    private const SECONDS_WITHOUT_SIGN = 90;

    /** A job that was just added may not be seen yet, one that was just taken may not have said so yet. */
    private const SECONDS_TO_SETTLE = 5;

    public function __construct(private readonly EndResult $end, private readonly CompleteUpload $complete,
        private readonly PresetFiles $presets, private readonly NextResult $next,
        private readonly ClearSources $clear, private readonly TakeIn $take,
        private readonly HeldJobs $held) {}

    /** At the very start nobody works: whatever was being done is lost, and jobs with it. */
    public function atStart(): void
    {
        DB::table('jobs')->delete();
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
        $settled = $start ? now() : now()->subSeconds(self::SECONDS_TO_SETTLE);
        $making = Result::query()->where('state', ResultState::Making)->get(['id', 'worker', 'updated_at']);
        $lost = $making->filter(fn (Result $result): bool => ! self::isAlive($result->worker) || $result->updated_at < now()
            ->subSeconds(self::SECONDS_WITHOUT_SIGN));
        $this->each($lost->pluck('id')->all(), $this->takeUp(...));
        foreach (Result::query()->where('state', ResultState::Waiting)->where('waits_for', Result::ROOM)->get() as $result) {
            $this->guarded(fn () => $result->hasRoom() ? $result->update(['waits_for' => null]) : null);
        }
        $this->guarded($this->held->release(...));
        $this->forgetJournals($start ? 0 : self::SECONDS_TO_SETTLE);
        $this->guarded($this->clear->run(...));
        $this->dispatchMissing('making', 'result', $this->next->isHeld() ? [] : $this->next->eligible()
            ->where('results.updated_at', '<=', $settled)->orderBy('results.id')->pluck('results.id')->all(),
            fn (int $id) => MakeResult::dispatch($id));
        $this->dispatchMissing('reading', 'source', Source::query()->where('state', SourceState::Reading)
            ->where('updated_at', '<=', $settled)->orderBy('id')->pluck('id')->all(), fn (int $id) => ReadSource::dispatch($id),
            ReadSource::class);
        $isListed = fn (Builder $query) => $query->selectRaw('1')->from('sources')->whereColumn('sources.id', 'source_id')
            ->whereNull('sources.removed_at');
        // As the index says it that holds these alone.
        $unheard = Track::query()->from(DB::raw('tracks indexed by tracks_unheard'))
            ->whereRaw("kind = 'sound' and analysis is null and analysis_error is null")
            ->whereExists($isListed)->distinct()->orderBy('source_id')->pluck('source_id')->all();
        $this->dispatchMissing('analysis', 'source', $unheard, fn (int $id) => AnalyzeSource::dispatch($id), AnalyzeSource::class);
        $this->dispatchMissing('copying', 'copied', CopiedFolder::query()->where('state', CopiedFolder::COPYING)
            ->where('updated_at', '<=', $settled)->pluck('id')->all(), fn (int $id) => CopyFolderIn::dispatch($id), CopyFolderIn::class);
        $borders = PacketBordersRow::query()->whereNull('borders')->whereNull('error')->where('updated_at', '<=', $settled)
            ->whereExists($isListed)->distinct()->pluck('source_id')->all();
        $this->dispatchMissing('reading', 'source', $borders, fn (int $id) => FindBorders::dispatch($id), FindBorders::class);
        foreach (Upload::query()->whereNull('source_id')->whereColumn('received', 'bytes')->pluck('id') as $id) {
            $this->guarded(fn () => $this->complete->complete(Upload::query()->findOrFail($id)));
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
     * Rows that no job will come to get one. A job that a living worker holds counts, one that a dead worker holds does not.
     *
     * @param  array<array-key, mixed>  $ids
     * @param  callable(int): mixed  $dispatch
     * @param  ?class-string  $kind  where the queue has jobs of other kinds for the same rows
     */
    private function dispatchMissing(string $queue, string $property, array $ids, callable $dispatch, ?string $kind = null): void
    {
        if ($ids === []) {
            return;
        }
        $jobs = [];
        foreach (DB::table('jobs')->where('queue', $queue)->get(['id', 'payload', 'reserved_at']) as $job) {
            $payload = is_string($job->payload) ? $job->payload : '';
            if (($kind === null || str_contains($payload, class_basename($kind)))
                && preg_match('/'.$property.'\\\\";i:(\d+);/', $payload, $match) === 1) {
                $jobs[(int) $match[1]][] = $job;
            }
        }
        $this->each($ids, function (int $id) use ($queue, $jobs, $dispatch): void {
            $own = $jobs[$id] ?? [];
            if (array_filter($own, fn (object $job): bool => $job->reserved_at === null) !== []) {
                return;
            }
            // Whoever makes says so in the row at once; a worker that reads or analyses releases what the one before it held.
            $held = array_filter($own, fn (object $job): bool => $queue !== 'making' || $job->reserved_at > now()
                ->getTimestamp() - self::SECONDS_TO_SETTLE);
            if ($held === []) {
                DB::table('jobs')->whereIn('id', array_map(fn (object $job): mixed => $job->id, $own))->delete();
                $dispatch($id);
            }
        });
    }

    private static function isAlive(?int $process): bool
    {
        return $process !== null && posix_kill($process, 0);
    }
}
