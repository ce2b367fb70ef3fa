<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Sound\InvalidLevel;

/** What will be made, as scripts get it. */
final class PlanDocument
{
    /**
     * @return array<string, mixed> what is known before it is made
     *
     * @throws InvalidLevel
     */
    public static function write(Plan $plan): array
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
}
