<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;
use Octavox\Core\Make\Result;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanWords;

/** One entry of what `make --json` prints. */
final class MakeDocument
{
    /** @return array<string, mixed> what is known before it is made */
    public static function planned(Plan $plan): array
    {
        $sound = $plan->sound();

        return [
            'source' => $plan->source->path,
            'path' => $plan->path(),
            'state' => 'planned',
            'action' => $plan->isKept() ? 'kept' : 'remade',
            'container' => $plan->target->container,
            'codec' => $sound?->audio->codec->value,
            'rate' => $sound?->audio->rate,
            'channels' => $sound?->audio->channels() ?? 0,
            'layout' => $sound?->audio->layout->name(),
            'bits' => $sound?->audio->bits() ?? 0,
            'kbps' => $sound->rateControl->kbps ?? 0,
            'samples' => $plan->length(),
            'predicted_bytes' => $plan->target->predictedBytes,
            'seconds' => round($plan->seconds(), 6),
            'steps' => PlanWords::steps($plan),
            'warnings' => PlanWords::warnings($plan),
            'picture' => $plan->picture === null ? null : 'kept',
            'sound_tracks' => count($plan->sounds),
        ];
    }

    /** @return array<string, mixed> */
    public static function made(Result $result): array
    {
        return [...self::planned($result->plan),
            'path' => $result->path,
            'state' => $result->isSkipped() ? 'skipped' : 'done',
            'samples' => $result->receipt->samples ?? $result->plan->length(),
            'bytes' => $result->receipt?->bytes,
            'seconds' => round($result->seconds(), 6),
            'took' => round($result->took, 3),
            'receipt' => $result->receipt?->toArray(),
            'error' => null,
        ];
    }

    /** @return array<string, mixed> */
    public static function failed(string $path, Failure $failure): array
    {
        return ['source' => $path, 'path' => null, 'state' => 'failed',
            'error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $path]];
    }
}
