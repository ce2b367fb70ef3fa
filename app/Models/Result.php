<?php

declare(strict_types=1);

namespace App\Models;

use App\Values\MediaType;
use App\Values\PlayableSound;
use App\Values\ResultState;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Plan\Plan;

/**
 * One result file, planned, then made.
 *
 * @property int $id
 * @property int $order_id
 * @property ?int $source_id
 * @property string $source_name
 * @property string $name
 * @property string $action
 * @property ResultState $state
 * @property ?string $phase
 * @property array<array-key, mixed> $plan
 * @property int $source_bytes
 * @property int $predicted_bytes
 * @property int $samples
 * @property int $rate
 * @property int $done_samples
 * @property ?float $speed times real time
 * @property int $attempts
 * @property bool $cancelling
 * @property ?string $token
 * @property ?int $worker process number
 * @property ?string $path
 * @property ?array<array-key, mixed> $receipt
 * @property ?string $error_code
 * @property ?string $error_says
 * @property ?Carbon $begun_at
 * @property ?Carbon $ended_at
 * @property Carbon $updated_at
 * @property Order $order
 * @property ?Source $source
 */
final class Result extends Model
{
    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = [
        'state' => ResultState::class, 'plan' => 'array', 'receipt' => 'array', 'cancelling' => 'boolean', 'speed' => 'float',
        'samples' => 'integer', 'done_samples' => 'integer', 'predicted_bytes' => 'integer', 'source_bytes' => 'integer',
        'begun_at' => 'datetime', 'ended_at' => 'datetime',
    ];

    /** @return BelongsTo<Order, $this> */
    public function order(): BelongsTo
    {
        return $this->belongsTo(Order::class);
    }

    /** @return BelongsTo<Source, $this> */
    public function source(): BelongsTo
    {
        return $this->belongsTo(Source::class);
    }

    /** Where its maker writes down that it is finished. */
    public function journalPath(): string
    {
        return sprintf('%s/journal/%d.json', config('octavox.home'), $this->id);
    }

    /** What the process that made it said of its own troubles. */
    public function logPath(): string
    {
        return sprintf('%s/logs/%d.log', config('octavox.home'), $this->id);
    }

    public function carriedPlan(): Plan
    {
        return Plan::fromArray($this->plan);
    }

    /** Whether the picture is kept beside the sound. */
    public function isFilm(): bool
    {
        return isset($this->plan['picture']);
    }

    /** Whether it is a video without sound. */
    public function isSilent(): bool
    {
        return $this->isFilm() && ($this->plan['track'] ?? null) === 0;
    }

    /** Whether its sound was decoded, so that its level is known. */
    public function wasMeasured(): bool
    {
        return ($this->receipt['measured'] ?? true) === true;
    }

    /** What is being done to it at the moment. */
    public function doing(): string
    {
        return match ($this->phase) {
            'measuring' => 'Measuring',
            'verifying' => 'Verifying',
            default => 'Making',
        };
    }

    /** @return array<string, string> what was measured before or after the level was set; none where it was left */
    public function levelFigures(string $side): array
    {
        $level = $this->receipt['level'] ?? null;
        $figures = is_array($level) && is_array($level[$side] ?? null) ? $level[$side] : [];
        $shown = [];
        foreach (['lufs' => ['loudness', 'LUFS'], 'range_lu' => ['range', 'LU'], 'peak_db' => ['peak', 'dBFS'], 'true_peak_db' => ['true peak', 'dBFS'], 'rms_db' => ['mean level', 'dBFS']] as $key => [$name, $unit]) {
            if (isset($figures[$key]) && is_numeric($figures[$key])) {
                $shown[$name] = number_format((float) $figures[$key], 1).' '.$unit;
            }
        }

        return $shown;
    }

    /** By how much the level was changed, and what kept it from more. */
    public function levelSaid(): string
    {
        $level = $this->receipt['level'] ?? [];
        $gain = sprintf('%+.1f dB, plain gain', is_numeric($level['gain_db'] ?? null) ? (float) $level['gain_db'] : 0.0);

        return ($level['held_by_ceiling'] ?? false) === true ? $gain.'; the ceiling of the true peak kept it from more' : $gain;
    }

    /** The form of a result that does not tell it itself; null where it does. */
    public function statedForm(): ?string
    {
        $plan = $this->carriedPlan();

        return Outputs::named($plan->format)?->capabilities()->headerless === true ? (string) HeaderlessFormat::of($plan->audio) : null;
    }

    /** @return list<PlayableSound> the source as it was and each sound of the result */
    public function heard(): array
    {
        $plan = $this->carriedPlan();
        $heard = [];
        if ($this->source_id !== null && ! $plan->isSilent()) {
            $heard[] = new PlayableSound('Before', '', '', route('track.hear', [$this->source_id, $plan->track]));
        }
        $type = MediaType::of($plan->format, $this->isFilm());
        $count = count($plan->sounds());
        foreach ($plan->sounds() as $index => $sound) {
            // A film plays by itself; its sound alone is for the browser that shows the picture and cannot decode the sound.
            $heard[] = new PlayableSound($count === 1 ? 'After' : 'After, sound track '.($index + 1), $this->isFilm() ? '' : route('delivery.media', $this), $type, route('delivery.hear', [$this, $index + 1]));
        }

        return $heard;
    }

    public function isDone(): bool
    {
        return $this->state === ResultState::Done;
    }

    /** Whether the finished file is where it was put. */
    public function isThere(): bool
    {
        return $this->isDone() && $this->path !== null && is_file($this->path);
    }

    /** 0 to 100 over making and verifying. */
    public function percent(): int
    {
        return $this->samples === 0 ? 0 : (int) min(100, intdiv(100 * $this->done_samples, $this->samples));
    }

    /** Seconds left at the measured speed; null before it is known. */
    public function secondsLeft(): ?float
    {
        return $this->speed === null || $this->speed <= 0 ? null : ($this->samples - $this->done_samples) / $this->rate / $this->speed;
    }
}
