<?php

declare(strict_types=1);

namespace App\Api;

use App\Orders\Models\Order;
use App\Orders\Planning\PlannedResult;
use App\Orders\Planning\SheetLine;
use App\Presets\Values\KnownPreset;
use App\Results\Models\Result;
use App\Results\Values\OrderProgress;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Models\Upload;
use Illuminate\Support\Carbon;
use Octavox\Core\Plan\PlanDocument;
use Octavox\Core\Sound\InvalidLevel;

/** What the interface for scripts tells of each thing; the shapes stand in its description. */
final class Documents
{
    /** @return array<string, mixed> */
    public static function source(Source $source): array
    {
        return [
            'id' => $source->id, 'name' => $source->name, 'called' => $source->heading(), 'folder' => $source->folder,
            'origin' => $source->origin, 'state' => $source->state->value, 'container' => $source->container,
            'bytes' => $source->bytes, 'seconds' => $source->seconds, 'picture' => $source->picture, 'same_as' => $source->same_as,
            'error' => self::error($source->error_code, $source->error_says),
            'tracks' => array_values($source->tracks->map(self::track(...))->all()), 'created_at' => self::moment($source->created_at),
        ];
    }

    /** @return array<string, mixed> */
    private static function track(Track $track): array
    {
        return ['number' => $track->number, 'kind' => $track->kind, 'codec' => $track->codec, 'format' => $track->format,
            'language' => $track->language, 'rate' => $track->rate, 'channels' => $track->channels, 'layout' => $track->layout,
            'kbps' => $track->kbps, 'samples' => $track->samples];
    }

    /** @return array<string, mixed> */
    public static function analysis(Track $track): array
    {
        $measured = $track->measured();

        return ['track' => $track->number,
            'state' => $measured !== null ? 'done' : ($track->isBeingAnalyzed() ? 'analysing' : 'failed'),
            'measured' => $measured?->toArray(), 'findings' => $track->analysis_findings ?? [], 'error' => $track->analysis_error];
    }

    /** @return array<string, mixed> */
    public static function upload(Upload $upload): array
    {
        return ['id' => $upload->id, 'name' => $upload->name, 'folder' => $upload->folder, 'bytes' => $upload->bytes,
            'received' => $upload->received, 'source' => $upload->source_id, 'expires_at' => self::moment($upload->expires_at)];
    }

    /** @return array<string, mixed> */
    public static function preset(KnownPreset $known): array
    {
        return $known->what->toArray() + ['own' => $known->isOwn, 'starred' => $known->starred];
    }

    /** @return array<string, mixed> */
    public static function order(Order $order, OrderProgress $progress): array
    {
        return [
            'id' => $order->id, 'title' => $order->heading(), 'held' => $order->held, 'held_by' => $order->held_by,
            'priority' => $order->priority, 'on_failure' => $order->on_failure->value, 'destination' => $order->destination,
            'recipe' => $order->recipe, 'place' => $order->place, 'care' => $order->care->value, 'summary' => $order->summary,
            'results' => ['all' => $progress->files, 'done' => $progress->done, 'failed' => $progress->failed, 'open' => $progress->open],
            'percent' => $progress->percent(), 'seconds_left' => $progress->secondsLeft(), 'placed_at' => self::moment($order->placed_at),
        ];
    }

    /** @return array<string, mixed> */
    public static function result(Result $result): array
    {
        return [
            'id' => $result->id, 'order' => $result->order_id, 'source' => $result->source_id, 'source_name' => $result->source_name,
            'name' => $result->name, 'action' => $result->action, 'state' => $result->state->value, 'held' => $result->held,
            'waits_for' => $result->waits_for, 'phase' => $result->phase, 'percent' => $result->percent(), 'speed' => $result->speed,
            'seconds_left' => $result->state->isOpen() ? $result->secondsLeft() : null, 'bytes' => $result->bytes,
            'predicted_bytes' => $result->predicted_bytes, 'path' => $result->isDone() ? $result->path : null,
            'there' => $result->isThere(), 'binned' => $result->binned !== null,
            'error' => self::error($result->error_code, $result->error_says), 'receipt' => $result->receipt,
            'ended_at' => self::moment($result->ended_at),
        ];
    }

    /**
     * @return array<string, mixed> what would become of one line of an order
     *
     * @throws InvalidLevel
     */
    public static function line(SheetLine $line): array
    {
        return [
            'source' => $line->source->id,
            'state' => match (true) {
                $line->isWaiting() => 'waiting',
                $line->isRight() => 'right',
                $line->isStopped() => 'refused',
                default => 'planned',
            },
            'says' => $line->says(),
            'plans' => array_map(fn (PlannedResult $one): array => $one->plan === null ? [] : PlanDocument::write($one->plan),
                $line->makable()),
            'error' => $line->refusal === null ? null : self::error($line->refusal->code(), $line->refusal->getMessage()),
            'fit' => $line->fit?->toArray(),
        ];
    }

    /** @return ?array{code: string, says: string} */
    private static function error(?string $code, ?string $says): ?array
    {
        return $code === null ? null : ['code' => $code, 'says' => (string) $says];
    }

    private static function moment(?Carbon $moment): ?string
    {
        return $moment?->toIso8601String();
    }
}
