<?php

declare(strict_types=1);

namespace App\Work;

use App\Processes\QueueSignal;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;

/** Tells workers that there is work; what it is stands in the rows. A signal that is lost or comes twice harms nothing. */
final readonly class WorkSignal
{
    /** @param  array<string, class-string<ShouldQueue>>  $jobs  by the kind of work */
    public function __construct(private array $jobs, private QueueSignal $signal) {}

    /** Once what is being written now is written: so many rows more wait. */
    public function announce(WorkKind $kind, int $rows = 1): void
    {
        // A source without sound has no track to be analysed.
        if ($rows < 1) {
            return;
        }
        DB::afterCommit(function () use ($kind, $rows): void {
            $job = $this->jobs[$kind->value];
            Queue::bulk(array_map(fn (): ShouldQueue => new $job, range(1, $rows)), '', $kind->value);
            $this->signal->ring($kind->value);
        });
    }

    /** Asks for something that is made where somebody looks at it, and can be asked for again. */
    public function request(WorkKind $kind, int $row): void
    {
        Queue::pushOn($kind->value, new ($this->jobs[$kind->value])($row));
    }

    /** Sees to it that as many jobs as rows wait. */
    public function ensure(WorkKind $kind, int $waiting): void
    {
        $missing = $waiting - Queue::pendingSize($kind->value);
        if ($missing > 0) {
            $this->announce($kind, $missing);
        }
    }
}
