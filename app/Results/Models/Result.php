<?php

declare(strict_types=1);

namespace App\Results\Models;

use App\Lists\Humanize;
use App\Orders\Models\Order;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Make\Receipt;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanUnreadable;

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
 * @property ?array<string, mixed> $spec  all that was asked of it
 * @property int $source_bytes
 * @property int $predicted_bytes
 * @property int $samples
 * @property int $rate
 * @property int $done_samples
 * @property ?float $speed times real time
 * @property int $attempts
 * @property bool $cancelling
 * @property bool $held  whether somebody paused it
 * @property ?string $waits_for  what it cannot be made without: `room`
 * @property int $turn  among those of its order; lower ones come first
 * @property ?string $token
 * @property ?string $path
 * @property int $bytes  of the finished file; 0 before
 * @property ?string $binned  where the file lies since it was put into the bin
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
    /** What a result waits for that the drive is too full for. */
    public const ROOM = 'room';

    /** Bytes that stay free beside a result. */
    private const SPARE_BYTES = 1 << 20;

    private const MOST_LOG = 1 << 20;

    private ?Plan $carriedPlan = null;

    private ?ReceiptFacts $receiptFacts = null;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = [
        'state' => ResultState::class, 'plan' => 'array', 'spec' => 'array', 'receipt' => 'array', 'cancelling' => 'boolean',
        'held' => 'boolean', 'turn' => 'integer',
        'speed' => 'float',
        'samples' => 'integer', 'done_samples' => 'integer', 'predicted_bytes' => 'integer', 'source_bytes' => 'integer',
        'bytes' => 'integer',
        'begun_at' => 'datetime', 'ended_at' => 'datetime',
    ];

    /** @return array<string, string> what can be done with its work, by what the page sends: a line that is paused offers to go on */
    public function workActs(): array
    {
        return match (true) {
            $this->held => ['go-on' => 'Go on'],
            $this->order->held => ['go-on-order' => 'Go on with the order'],
            default => ['hold' => 'Pause', ...($this->state === ResultState::Waiting ? ['first' => 'Next'] : [])],
        };
    }

    /**
     * What a result that is not being made stands in, in words.
     *
     * @param  bool  $isAllHeld  whether everything is paused
     */
    public function waitsIn(bool $isAllHeld): string
    {
        return match (true) {
            $this->state !== ResultState::Waiting => $this->state->label(),
            $this->waits_for === self::ROOM => 'waiting for room on its drive: '.Humanize::bytes($this->neededBytes())
                .' are needed; it goes on by itself',
            $this->held || $this->order->held || $isAllHeld => 'paused',
            default => $this->state->label(),
        };
    }

    /** Bytes that must be free where it is made. */
    public function neededBytes(): int
    {
        return $this->predicted_bytes + self::SPARE_BYTES;
    }

    /** @return Builder<self> those of an order */
    public static function ofOrder(Order $order): Builder
    {
        return self::query()->where('order_id', $order->id)->orderBy('id');
    }

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
        return sprintf('%s/journal/%d.json', config()->string('octavox.home'), $this->id);
    }

    /** What the process that made it said of its own troubles. */
    public function logPath(): string
    {
        return sprintf('%s/logs/%d.log', config()->string('octavox.home'), $this->id);
    }

    /** Where its waveform is drawn. */
    public function waveformPath(): string
    {
        return sprintf('%s/waveforms/result-%d.waveform', config()->string('octavox.home'), $this->id);
    }

    /** @throws PlanUnreadable */
    public function plannedAs(): Plan
    {
        return $this->carriedPlan ??= Plan::fromArray($this->plan);
    }

    /** What was measured on it; null before it is done, or where that is not understood any more. */
    public function measuredAs(): ?Receipt
    {
        try {
            return $this->receipt === null ? null : Receipt::fromArray($this->receipt);
        } catch (\UnexpectedValueException $broken) {
            report($broken);

            return null;
        }
    }

    /** What its receipt tells; null before it is done, or where it is not understood any more. */
    public function receiptFacts(): ?ReceiptFacts
    {
        return $this->receiptFacts ??= ReceiptFacts::of($this);
    }

    /** What the process that made it said of its own troubles; empty where it said nothing. */
    public function log(): string
    {
        return is_file($this->logPath()) ? mb_scrub((string) @file_get_contents($this->logPath(), length: self::MOST_LOG)) : '';
    }

    /** Whether the picture is kept beside the sound. */
    public function isVideo(): bool
    {
        return isset($this->plan['picture']);
    }

    /** What is being done to it at the moment. */
    public function doing(): string
    {
        return match ($this->phase) {
            'copying' => 'Copying the source',
            'measuring' => 'Measuring',
            'verifying' => 'Verifying',
            default => 'Making',
        };
    }

    /**
     * The format of a result that does not tell it itself; null where it does.
     *
     * @throws PlanUnreadable
     */
    public function statedFormat(): ?string
    {
        $plan = $this->plannedAs();
        $audio = $plan->sound()?->audio;

        return $audio !== null && Outputs::named($plan->target->container)?->capabilities()->headerless === true
            ? (string) HeaderlessFormat::of($audio) : null;
    }

    public function isDone(): bool
    {
        return $this->state === ResultState::Done;
    }

    /** Whether the finished file is where it was put. */
    public function isThere(): bool
    {
        return $this->isDone() && $this->binned === null && $this->path !== null && is_file($this->path);
    }

    /** Its folders and name beneath the place of its order; its name alone where it lies elsewhere. */
    public function pathInOrder(): string
    {
        $folder = $this->order->folder().'/';

        return str_starts_with((string) $this->path, $folder) ? substr((string) $this->path, strlen($folder))
            : basename((string) $this->path);
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
