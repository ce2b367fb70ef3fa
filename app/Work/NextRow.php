<?php

declare(strict_types=1);

namespace App\Work;

use App\Processes\Stopping;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Octavox\Core\Failure;
use Octavox\Core\Make\Interrupted;

/** What each worker does that is told of work: takes the next row, works on it, and lets it go. */
final readonly class NextRow
{
    public function __construct(private Claims $claims, private WorkSignal $signal) {}

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows  those that wait
     * @param  string  $number  their column, {@see Claims::take()}
     * @param  int  $tries  so often a row may be interrupted
     * @param  callable(int): mixed  $do  gets the row
     * @param  callable(int, ?\Throwable): mixed  $giveUp  gets the row, and null where it was interrupted too often
     */
    public function work(WorkKind $kind, Builder $rows, string $number, int $tries, callable $do, callable $giveUp): void
    {
        $claim = $this->claims->take($kind, $rows, $number);
        if ($claim === null) {
            return;
        }
        $isDone = true;
        try {
            $claim->attempts > $tries ? $giveUp($claim->row, null)
                : Heartbeat::during(fn () => $this->claims->sign($claim), fn () => $do($claim->row));
        } catch (Interrupted) {
            $isDone = false;
        } catch (\Throwable $trouble) {
            report_unless($trouble instanceof Failure, $trouble);
            $giveUp($claim->row, $trouble);
        } finally {
            $isDone ? $this->claims->end($claim) : $this->claims->giveBack($claim, ! Stopping::isAsked());
        }
        if (! $isDone && ! Stopping::isAsked()) {
            $this->signal->announce($kind);
        }
    }
}
