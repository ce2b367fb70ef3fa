<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Processes\AskedChild;
use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;

/** Has the packets around the marks of a source's pieces looked at in a process of its own, and keeps what it found. */
final class FindBorders implements ShouldQueue
{
    use Queueable;

    private const SECONDS = 60;

    public int $tries = 2;

    public function __construct(private readonly int $source)
    {
        $this->onQueue('reading');
    }

    public function handle(): void
    {
        $source = Source::query()->find($this->source);
        $rows = PacketBordersRow::query()->where('source_id', $this->source)->whereNull('borders')->whereNull('error')
            ->get()->keyBy('query');
        if ($source === null || $rows->isEmpty()) {
            return;
        }
        try {
            $answer = (new AskedChild('borders', self::SECONDS))
                ->answer(['path' => $source->path, 'stated' => $source->stated, 'queries' => $rows->keys()->all()], $source->path,
                    "source-$source->id.log");
            $found = is_array($answer['borders'] ?? null) ? $answer['borders'] : [];
        } catch (Failure $failure) {
            $this->tell($failure);

            return;
        }
        foreach ($rows as $query => $row) {
            PacketBordersRow::query()->where('source_id', $this->source)->where('query', $query)
                ->update(is_array($found[$query] ?? null) ? ['borders' => json_encode($found[$query])]
                : ['error' => 'The packets around this cut could not be found; move it a little.']);
        }
    }

    /** No line of a sheet waits for ever. */
    public function failed(?\Throwable $why): void
    {
        $this->tell(InternalFault::of($why ?? new \RuntimeException('The job failed.')));
    }

    private function tell(Failure $failure): void
    {
        PacketBordersRow::query()->where('source_id', $this->source)->whereNull('borders')->whereNull('error')
            ->update(['error' => $failure->getMessage()]);
    }
}
