<?php

declare(strict_types=1);

namespace App\Results\Jobs;

use App\Database\RetryWrite;
use App\Files\BinFolder;
use App\Files\CopyFailed;
use App\Files\DeviceAway;
use App\Files\Folder;
use App\Files\FreeSpace;
use App\Files\PluggedDevices;
use App\Processes\Stopping;
use App\Results\Actions\ClaimResult;
use App\Results\Actions\CopySafely;
use App\Results\Actions\EndResult;
use App\Results\Models\Result;
use App\Results\Queries\NextResult;
use App\Results\Queries\ResultRoom;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use App\Work\Claims;
use App\Work\Heartbeat;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Make\MakerProcess;
use Octavox\Core\Make\NoSpace;
use Octavox\Core\Make\Result as MadeResult;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Plan\PlanUnreadable;

/** Has the result whose turn it is made in a child process and relays to the database how far it is. */
final class MakeResult implements ShouldQueue
{
    use Queueable;

    private const SECONDS_BETWEEN_NOTES = 0.35;

    /** When it was told last how far the copy of the source is. */
    private float $copied = 0.0;

    public int $tries = 0;

    public int $timeout = 0;

    public function handle(EndResult $end, ClaimResult $next, Claims $claims, WorkSignal $signal): void
    {
        $token = bin2hex(random_bytes(8));
        $claim = $next->claim($token);
        $result = $claim === null ? null : Result::query()->find($claim->row);
        if ($claim === null || $result === null) {
            return;
        }
        try {
            Heartbeat::during(fn () => $claims->sign($claim), fn () => $this->work($result, $token, $end));
        } finally {
            // What is left as being made without a claim is taken up by the keeper.
            $claims->end($claim);
        }
        if ($result->state === ResultState::Waiting && ! Stopping::isAsked()) {
            $signal->announce(WorkKind::Making);
        }
    }

    private function work(Result $result, string $token, EndResult $end): void
    {
        try {
            $made = $this->make($result, $token);
            RetryWrite::write(fn () => $end->made($result, $made));
        } catch (Abandoned) {
            RetryWrite::write(fn () => $end->stopped($result));
        } catch (Interrupted $interrupted) {
            $isOfItself = ! Stopping::isAsked();
            RetryWrite::write(fn () => $end->interrupted($result, $interrupted, $isOfItself));
        } catch (\Throwable $trouble) {
            report_unless($trouble instanceof Failure, $trouble);
            $failure = $trouble instanceof Failure ? $trouble : InternalFault::of($trouble);
            RetryWrite::write(fn () => $end->failed($result, $failure));
        }
    }

    /**
     * @throws Failure
     */
    private function make(Result $result, string $token): MadeResult
    {
        $plan = $result->plannedAs();
        $this->requireRoom($result, $plan->target->folder);
        $originals = $plan->target->ifExists === IfExists::Replace
            ? array_values(array_filter(Source::everyOne()->pluck('path')->all(), is_string(...))) : [];
        app(CopySafely::class)->before($result, fn (int $done): bool => $this->isToCopyOn($result, $done));
        $child = Folder::as($plan->target->folder, fn (): MakerProcess => MakerProcess::start($plan, $token, $originals,
            $result->journalPath(), $result->logPath(), app(BinFolder::class)->bins($plan->path())));
        $begun = microtime(true);
        $noted = 0.0;
        while ($child->listen()) {
            $child->wait(self::SECONDS_BETWEEN_NOTES);
            if (Stopping::isAsked()) {
                $child->interrupt();
            }
            $now = microtime(true);
            if ($now - $noted < self::SECONDS_BETWEEN_NOTES) {
                continue;
            }
            $noted = $now;
            try {
                $result->fill([
                    'phase' => $child->phase()->value,
                    'done_samples' => $child->done(),
                    'speed' => $child->done() > 0 ? $child->done() / $result->rate / max(0.001, $now - $begun) : null,
                ]);
                $result->save();
                if ($this->isToStop($result)) {
                    $child->cancel();
                }
            } catch (QueryException) {
                // How far it is may go unsaid while somebody else writes.
                continue;
            }
        }

        return $child->result();
    }

    /**
     * A player that is away is not made up by a folder of its name; a drive that is full, or nearly so, is waited for.
     *
     * @throws Failure
     */
    private function requireRoom(Result $result, string $folder): void
    {
        $devices = app(PluggedDevices::class);
        if ($devices->areMeantBy($folder) && $devices->free($folder) === null) {
            throw DeviceAway::now($folder);
        }
        if (! app(ResultRoom::class)->isThereFor($result)) {
            throw NoSpace::before($folder, $result->predicted_bytes, (float) app(FreeSpace::class)->on($folder));
        }
    }

    /**
     * Tells how far the copy of the source is, now and then.
     *
     * @throws Interrupted
     * @throws CopyFailed
     * @throws PlanUnreadable
     */
    private function isToCopyOn(Result $result, int $done): bool
    {
        if (Stopping::isAsked()) {
            throw Interrupted::now($result->plannedAs()->source->path);
        }
        $now = microtime(true);
        if ($now - $this->copied < self::SECONDS_BETWEEN_NOTES) {
            return true;
        }
        $this->copied = $now;
        // A source that was deleted for good meanwhile is not copied on.
        if (! Source::everyOne()->whereKey($result->source_id)->exists()) {
            throw CopyFailed::unreadable($result->plannedAs()->source->path);
        }
        $share = $done / max(1, 2 * (int) $result->source?->bytes);
        RetryWrite::write(fn () => $result->update(['phase' => 'copying', 'done_samples' => (int) ($result->samples * min(1.0, $share))]));

        return ! $this->isToStop($result);
    }

    /** Whether somebody has cancelled or paused it, its order or everything since. */
    private function isToStop(Result $result): bool
    {
        $now = Result::query()->with('order')->find($result->id);

        return $now === null || $now->cancelling || $now->held || $now->order->held && $now->order->held_by === null
            || app(NextResult::class)->isHeld();
    }
}
