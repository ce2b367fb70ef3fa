<?php

declare(strict_types=1);

namespace App\Processes;

use Illuminate\Support\Facades\DB;

/** Which process works on which job: what one held that is gone is given back to the others, who find out whether it is still wanted. */
final class HeldJobs
{
    /** A job that was just taken has not said yet by whom. */
    private const SECONDS_TO_SETTLE = 5;

    public function hold(string $job): void
    {
        DB::table('jobs')->where('id', $job)->update(['worker' => getmypid()]);
    }

    public function release(): void
    {
        $held = DB::table('jobs')->whereNotNull('reserved_at')
            ->where('reserved_at', '<=', now()->getTimestamp() - self::SECONDS_TO_SETTLE)->get(['id', 'worker', 'attempts', 'created_at']);
        foreach ($held as $job) {
            if (! is_int($job->worker) || ! posix_kill($job->worker, 0)) {
                // That its worker ended says nothing about a job, until it has done so for an hour.
                $isNew = $job->created_at > now()->subHour()->getTimestamp();
                DB::table('jobs')->where('id', $job->id)->update(['reserved_at' => null, 'worker' => null,
                    'attempts' => max(0, (int) $job->attempts - ($isNew ? 1 : 0))]);
            }
        }
    }
}
