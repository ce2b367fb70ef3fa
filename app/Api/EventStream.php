<?php

declare(strict_types=1);

namespace App\Api;

use App\Http\Problem;
use App\Processes\FileLock;
use App\Results\Models\Result;
use App\Results\Queries\ResultList;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use Carbon\CarbonInterface;
use Illuminate\Support\Carbon;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * What happens to sources and results, as server-sent events (HTML Living Standard, 9.2). Whoever was cut off says which event came last
 * and
 * gets what came since; something may be told twice then, and nothing is left out.
 */
final class EventStream
{
    /** Streams at once: each holds one of the processes that answer pages. */
    private const MOST_AT_ONCE = 3;

    private const LONGEST_SECONDS = 120;

    private const SECONDS_BETWEEN_LOOKS = 0.5;

    /** A comment after so long shows that somebody is still there, and shows us whether anybody still listens. */
    private const SECONDS_BETWEEN_SIGNS = 2.0;

    private const MOST_AT_A_LOOK = 500;

    /** @var array<string, string> what was told last of each thing */
    private array $told = [];

    private function __construct(private CarbonInterface $since, private readonly ?int $order, private readonly ResultList $results) {}

    /**
     * @param  string  $last  identity of the event that came last; empty: what happens from now on
     * @param  ?int  $order  only what belongs to it
     */
    public static function since(string $last, ?int $order, int $seconds): StreamedResponse
    {
        $slot = FileLock::takeOne('events', self::MOST_AT_ONCE) ?? Problem::throw(503, 'many-listen', sprintf(
            '%d others listen to events already; ask again in a moment, or ask for what you want to know.', self::MOST_AT_ONCE));
        $since = preg_match('/^\d{1,11}$/', $last) === 1 ? Carbon::createFromTimestamp((int) $last) : now();
        $stream = new self($since, $order, app(ResultList::class));

        return response()->stream(function () use ($stream, $seconds, $slot): void {
            $stream->run(max(1, min(self::LONGEST_SECONDS, $seconds)));
            $slot->release();
        }, 200, ['Content-Type' => 'text/event-stream', 'Cache-Control' => 'no-store', 'X-Accel-Buffering' => 'no']);
    }

    private function run(int $seconds): void
    {
        $until = microtime(true) + $seconds;
        $signed = microtime(true);
        echo "retry: 1000\n\n";
        // What happens between the request and the first look counts as well.
        while (! connection_aborted()) {
            $now = now();
            foreach ($this->fresh() as [$name, $document]) {
                printf("event: %s\nid: %d\ndata: %s\n\n", $name, $now->getTimestamp(), $document);
                $signed = microtime(true);
            }
            $this->since = $now;
            if (microtime(true) - $signed > self::SECONDS_BETWEEN_SIGNS) {
                echo ": still here\n\n";
                $signed = microtime(true);
            }
            // What PHP itself gathers goes out as well.
            if (ob_get_level() > 0) {
                ob_flush();
            }
            flush();
            if (microtime(true) >= $until) {
                return;
            }
            usleep((int) (self::SECONDS_BETWEEN_LOOKS * 1e6));
        }
    }

    /** @return list<array{string, string}> name and data of each event */
    private function fresh(): array
    {
        // Rows tell the second in which they were changed.
        $since = $this->since->copy()->subSeconds(2);
        $found = [];
        $results = Result::query()->with('order')->where('updated_at', '>=', $since)
            ->when($this->order !== null, fn ($rows) => $rows->where('order_id', $this->order))->orderBy('updated_at')
            ->limit(self::MOST_AT_A_LOOK)->get();
        /** @var Result $result */
        foreach ($results as $result) {
            $found[] = ['result', $result->id, array_diff_key(Documents::result($result), ['receipt' => 0])];
        }
        foreach ($this->results->progress($results->pluck('order')->unique('id')->all()) as $id => $progress) {
            $order = $results->firstWhere('order_id', $id)?->order;
            $found[] = ['order', $id, $order === null ? [] : Documents::order($order, $progress)];
        }
        $sources = $this->order !== null ? [] : Source::query()->with('tracks')->where('updated_at', '>=', $since)
            ->where('state', '!=', SourceState::Reading)->orderBy('updated_at')->limit(self::MOST_AT_A_LOOK)->get();
        /** @var Source $source */
        foreach ($sources as $source) {
            $found[] = ['source', $source->id, Documents::source($source)];
        }

        return $this->untold($found);
    }

    /**
     * @param  list<array{string, int, array<string, mixed>}>  $found
     * @return list<array{string, string}>
     */
    private function untold(array $found): array
    {
        $events = [];
        foreach ($found as [$name, $id, $document]) {
            $json = json_encode($document, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_SLASHES);
            if (($this->told["$name $id"] ?? '') !== $json) {
                $this->told["$name $id"] = $json;
                $events[] = [$name, $json];
            }
        }

        return $events;
    }
}
