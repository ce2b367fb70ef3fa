<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Orders\Values\OnFailure;
use App\Results\Models\Result;
use App\Results\Queries\ResultRoom;
use App\Results\ResultMade;
use App\Results\Values\ResultState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Octavox\Core\Failure;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Make\Journal;
use Octavox\Core\Make\Result as MadeResult;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Plan\PlanUnreadable;

/** The one place in which a result that was being made comes to its end, or back to where it waits. */
final class EndResult
{
    public function __construct(private readonly ClearSources $clear, private readonly ResultRoom $room,
        private readonly WorkSignal $signal) {}

    public function made(Result $result, MadeResult $made): void
    {
        $result->update([
            'state' => $made->isSkipped() ? ResultState::Skipped : ResultState::Done, 'path' => $made->path,
            'name' => basename($made->path), 'receipt' => $made->receipt?->toArray(), 'bytes' => $made->receipt->bytes ?? 0,
            'done_samples' => $result->samples, 'speed' => $made->took > 0 ? $made->seconds() / $made->took : null, 'ended_at' => now(),
        ]);
        $this->forget($result);
        if (is_file($result->logPath())) {
            @unlink($result->logPath());
        }
        $this->clear->clearOf($result->order);
        event(new ResultMade($result));
        if (! $made->isSkipped()) {
            $this->signal->request(WorkKind::Drawings, $result->id);
        }
    }

    public function cancelled(Result $result): void
    {
        $this->forget($result);
        $result->update(['state' => ResultState::Cancelled, 'ended_at' => now()]);
    }

    /** Its child has ended because somebody wished it: what was only paused waits again, and is begun anew when it goes on. */
    public function stopped(Result $result): void
    {
        if ($this->isMadeAllTheSame($result)) {
            return;
        }
        if ($result->fresh()?->cancelling === true) {
            $this->cancelled($result);

            return;
        }
        $this->forget($result);
        $result->update(['state' => ResultState::Waiting, 'done_samples' => 0, 'speed' => null]);
    }

    public function failed(Result $result, Failure $failure): void
    {
        if ($this->isMadeAllTheSame($result)) {
            return;
        }
        $wantsRoom = $this->wantsRoom($result, $failure);
        $this->forget($result);
        if ($wantsRoom) {
            $result->update(['state' => ResultState::Waiting, 'done_samples' => 0, 'speed' => null, 'attempts' => 0,
                'waits_for' => Result::ROOM]);

            return;
        }
        $result->update(['state' => ResultState::Failed, 'ended_at' => now(), 'error_code' => $failure->code(),
            'error_says' => $failure->getMessage()]);
        $this->rest($result);
    }

    /** Whether it only failed because the drive is full: it goes on by itself once there is room. */
    private function wantsRoom(Result $result, Failure $failure): bool
    {
        return $failure->code() === 'no-space' || $failure->code() === 'file-unwritable' && ! $this->room->isThereFor($result);
    }

    /** What becomes of the rest of its order; what is at work is finished. */
    private function rest(Result $result): void
    {
        $order = $result->order()->first();
        $isRest = $order !== null && Result::ofOrder($order)->whereIn('state', [ResultState::Waiting, ResultState::Making])->exists();
        if (! $isRest || $order->on_failure === OnFailure::GoOn) {
            return;
        }
        if ($order->on_failure === OnFailure::Ask) {
            $order->update(['held' => true, 'held_by' => 'failure']);
        } else {
            Result::ofOrder($order)->where('state', ResultState::Waiting)->update(['state' => ResultState::Cancelled, 'ended_at' => now()]);
        }
    }

    /**
     * It waits again; a result that was finished in the last moment counts. A try has failed only where its own child died of itself: a
     * worker, a supervisor or a machine that ended says nothing about the file. After a few of those it is left to the person.
     */
    public function interrupted(Result $result, Interrupted $why, bool $isOfItself): void
    {
        $attempts = $result->attempts + ($isOfItself ? 1 : 0);
        if ($this->isMadeAllTheSame($result)) {
            return;
        }
        $this->forget($result);
        if ($result->fresh()?->cancelling === true) {
            $this->cancelled($result);
        } elseif ($isOfItself && $attempts >= config('octavox.attempts')) {
            $result->update([
                'state' => ResultState::Failed, 'ended_at' => now(), 'error_code' => $why->code(),
                'error_says' => sprintf('The work on this file was interrupted %d times, so it is not begun again by itself; nothing '
                    .'was left behind. Try again when the machine is at rest.', $attempts),
            ]);
        } else {
            $result->update(['state' => ResultState::Waiting, 'done_samples' => 0, 'speed' => null,
                'attempts' => $attempts]);
        }
    }

    /** Whether its file got its name in the last moment, whatever befell its process then: it counts, and is not made a second time. */
    private function isMadeAllTheSame(Result $result): bool
    {
        $placed = $this->placed($result);
        if ($placed !== null) {
            $this->made($result, $placed);
        }

        return $placed !== null;
    }

    /** @return ?MadeResult what became of it, where its file got its name and nobody wrote that down */
    private function placed(Result $result): ?MadeResult
    {
        try {
            return (new Journal($result->journalPath()))->placed($result->plannedAs());
        } catch (PlanUnreadable|\UnexpectedValueException) {
            return null;
        }
    }

    /** Temporary files and notes go, before the row says that nobody works on it: whoever dies in between leaves it to be taken up. */
    private function forget(Result $result): void
    {
        (new Journal($result->journalPath()))->forget();
        // Plans of former versions have it beside.
        $target = $result->plan['target'] ?? $result->plan;
        $folder = is_array($target) ? $target['folder'] ?? null : null;
        if ($result->token !== null && is_string($folder)) {
            (new Workplace($folder))->forget($result->token);
        }
    }
}
