<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Support\Facades\DB;

/** Cancels results and begins them again. */
final class ChangeResult
{
    public function __construct(private readonly WorkSignal $signal) {}

    /** One that waits is cancelled at once; one at work as soon as its worker looks up, a third of a second at most. */
    public function cancel(Result $result): void
    {
        $waiting = Result::query()->whereKey($result->id)->where('state', ResultState::Waiting)
            ->update(['state' => ResultState::Cancelled, 'ended_at' => now()]);
        if ($waiting === 0) {
            Result::query()->whereKey($result->id)->where('state', ResultState::Making)->update(['cancelling' => true]);
        }
        $result->refresh();
    }

    public function retry(Result $result): void
    {
        DB::transaction(function () use ($result): void {
            $waiting = Result::query()->whereKey($result->id)->whereIn('state', [ResultState::Failed, ResultState::Cancelled])->update([
                'state' => ResultState::Waiting, 'cancelling' => false, 'held' => false, 'waits_for' => null, 'done_samples' => 0,
                'speed' => null, 'attempts' => 0,
                'error_code' => null, 'error_says' => null, 'ended_at' => null,
            ]);
            if ($waiting === 1) {
                $this->signal->announce(WorkKind::Making);
            }
        });
        $result->refresh();
    }
}
