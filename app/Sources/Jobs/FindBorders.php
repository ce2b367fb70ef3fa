<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Processes\AskedChild;
use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Sources\Queries\PendingWork;
use App\Work\NextRow;
use App\Work\WorkKind;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;

/** Has the packets around the marks of the next source's pieces looked at in a process of its own, and keeps what it found. */
final class FindBorders implements ShouldQueue
{
    use Queueable;

    private const SECONDS = 60;

    private const TRIES = 2;

    public int $tries = 0;

    public function handle(NextRow $next, PendingWork $pending): void
    {
        $next->work(WorkKind::Borders, $pending->borders(), 'packet_borders.source_id', self::TRIES,
            fn (int $id) => $this->find($id, Source::query()->find($id)),
            fn (int $id, ?\Throwable $why) => $this->tell($id, InternalFault::of($why ?? new \RuntimeException('It was interrupted.'))));
    }

    /** @throws Interrupted */
    private function find(int $id, ?Source $source): void
    {
        $rows = PacketBordersRow::query()->where('source_id', $id)->whereNull('borders')->whereNull('error')
            ->get()->keyBy('query');
        if ($source === null || $rows->isEmpty()) {
            return;
        }
        try {
            $answer = (new AskedChild('borders', self::SECONDS))
                ->answer(['path' => $source->path, 'stated' => $source->stated, 'queries' => $rows->keys()->all()], $source->path,
                    "source-$source->id.log");
            $found = is_array($answer['borders'] ?? null) ? $answer['borders'] : [];
        } catch (Interrupted $stopped) {
            throw $stopped;
        } catch (Failure $failure) {
            $this->tell($id, $failure);

            return;
        }
        foreach ($rows as $query => $row) {
            PacketBordersRow::query()->where('source_id', $id)->where('query', $query)
                ->update(is_array($found[$query] ?? null) ? ['borders' => json_encode($found[$query])]
                : ['error' => 'The packets around this cut could not be found; move it a little.']);
        }
    }

    /** No line of a sheet waits for ever. */
    private function tell(int $id, Failure $failure): void
    {
        PacketBordersRow::query()->where('source_id', $id)->whereNull('borders')->whereNull('error')
            ->update(['error' => $failure->getMessage()]);
    }
}
