<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\MakeResult;
use App\Models\Result;
use App\Values\ResultState;
use Octavox\Core\Failure;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Make\Journal;
use Octavox\Core\Make\Workplace;

/** The one place in which a delivery that was being made comes to its end, or back to where it waits. */
final class EndResult
{
    /** @param  array<array-key, mixed>  $made  as the core's delivery gives it */
    public function made(Result $delivery, array $made): void
    {
        $skipped = ($made['state'] ?? null) === 'skipped';
        $seconds = is_numeric($made['seconds'] ?? null) ? (float) $made['seconds'] : 0.0;
        $took = is_numeric($made['took'] ?? null) ? (float) $made['took'] : 0.0;
        $path = is_string($made['path'] ?? null) ? $made['path'] : '';
        $delivery->update([
            'state' => $skipped ? ResultState::Skipped : ResultState::Done, 'path' => $path, 'name' => basename($path), 'receipt' => $made['receipt'] ?? null,
            'done_samples' => $delivery->samples, 'speed' => $took > 0 ? $seconds / $took : null, 'worker' => null, 'ended_at' => now(),
        ]);
        $this->forget($delivery);
        if (is_file($delivery->logPath())) {
            @unlink($delivery->logPath());
        }
    }

    public function cancelled(Result $delivery): void
    {
        $delivery->update(['state' => ResultState::Cancelled, 'worker' => null, 'ended_at' => now()]);
        $this->forget($delivery);
    }

    public function failed(Result $delivery, Failure $failure): void
    {
        $delivery->update(['state' => ResultState::Failed, 'worker' => null, 'ended_at' => now(), 'error_code' => $failure->code(), 'error_says' => $failure->getMessage()]);
        $this->forget($delivery);
    }

    /** It waits again, a few times at most; a result that was finished in the last moment counts. What somebody asked for is no failed try. */
    public function interrupted(Result $delivery, Interrupted $why, bool $isAsked = false): void
    {
        $attempts = $delivery->attempts - ($isAsked ? 1 : 0);
        $placed = $this->placed($delivery);
        if ($placed !== null) {
            $this->made($delivery, $placed);

            return;
        }
        $this->forget($delivery);
        if ($delivery->fresh()?->cancelling === true) {
            $this->cancelled($delivery);
        } elseif ($attempts >= config('octavox.attempts')) {
            $delivery->update([
                'state' => ResultState::Failed, 'worker' => null, 'ended_at' => now(), 'error_code' => $why->code(),
                'error_says' => sprintf('The work on this file was interrupted %d times, so it is not begun again by itself; nothing was left behind. Try again when the machine is at rest.', $attempts),
            ]);
        } else {
            $delivery->update(['state' => ResultState::Waiting, 'worker' => null, 'done_samples' => 0, 'speed' => null, 'attempts' => max(0, $attempts)]);
            MakeResult::dispatch($delivery->id);
        }
    }

    /** @return ?array<array-key, mixed> what became of it, where its file got its name and nobody wrote that down */
    private function placed(Result $delivery): ?array
    {
        try {
            return (new Journal($delivery->journalPath()))->placed($delivery->carriedPlan());
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    /** Temporary files and notes go. */
    private function forget(Result $delivery): void
    {
        (new Journal($delivery->journalPath()))->forget();
        $folder = $delivery->plan['folder'] ?? null;
        if ($delivery->token !== null && is_string($folder)) {
            (new Workplace($folder))->forget($delivery->token);
        }
    }
}
