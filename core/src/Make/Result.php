<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Plan\Plan;

/** What became of a plan. */
final readonly class Result
{
    /** @param  float  $took seconds */
    private function __construct(public Plan $plan, public string $state, public string $path, public ?Receipt $receipt, public float $took)
    {
    }

    public static function done(Plan $plan, string $path, Receipt $receipt, float $took): self
    {
        return new self($plan, 'done', $path, $receipt, $took);
    }

    public static function skipped(Plan $plan): self
    {
        return new self($plan, 'skipped', $plan->path(), null, 0.0);
    }

    /** @return array<string, mixed> one entry of `make --json` */
    public function toArray(): array
    {
        return [...self::planned($this->plan),
            'path' => $this->path,
            'state' => $this->state,
            'samples' => $this->receipt->samples ?? $this->plan->samples,
            'bytes' => $this->receipt?->bytes,
            'seconds' => round(($this->receipt->samples ?? $this->plan->samples) / max(1, $this->plan->audio->rate), 6),
            'took' => round($this->took, 3),
            'receipt' => $this->receipt?->toArray(),
            'error' => null,
        ];
    }

    /** @return array<string, mixed> the fields that are known before */
    public static function planned(Plan $plan): array
    {
        return [
            'source' => $plan->source,
            'path' => $plan->path(),
            'state' => 'planned',
            'action' => $plan->isKept() ? 'kept' : 'remade',
            'container' => $plan->format,
            'codec' => $plan->audio->codec->value,
            'rate' => $plan->audio->rate,
            'channels' => $plan->audio->channels(),
            'layout' => $plan->audio->layout->name(),
            'bits' => $plan->audio->bits(),
            'kbps' => $plan->setting->kbps,
            'samples' => $plan->samples,
            'predicted_bytes' => $plan->predictedBytes,
            'seconds' => round($plan->samples / max(1, $plan->audio->rate), 6),
            'steps' => $plan->steps,
            'warnings' => $plan->warnings,
            'picture' => $plan->picture === null ? null : 'kept',
            'sound_tracks' => count($plan->sounds()),
        ];
    }
}
