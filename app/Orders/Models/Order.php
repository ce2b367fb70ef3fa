<?php

declare(strict_types=1);

namespace App\Orders\Models;

use App\Orders\Values\OnFailure;
use App\Orders\Values\OrderState;
use App\Settings\Values\SourceCare;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SpecInvalid;

/**
 * A document: sources as lines, one spec for all, changes of single lines; a draft until it is placed.
 *
 * @property int $id
 * @property OrderState $state
 * @property string $title  empty where nobody gave it one
 * @property ?string $destination  name of the destination where its results go
 * @property ?string $recipe  name of the recipe that it began with
 * @property ?array<string, mixed> $base  the spec that this recipe had then
 * @property ?array<string, mixed> $spec
 * @property string $place  where results lie, {@see \App\Orders\Planning\Place}
 * @property int $revision  counts its changes
 * @property string $summary
 * @property bool $held  whether nobody works on it for now
 * @property ?string $held_by  why, where that was nobody's wish: `failure`
 * @property int $priority  orders of a higher one come first
 * @property OnFailure $on_failure
 * @property SourceCare $care
 * @property ?Carbon $cleared_at  when its sources were seen to, where they go into the bin
 * @property ?string $asked_by  mark of the request of a script
 * @property ?Carbon $placed_at
 * @property Carbon $created_at
 * @property Carbon $updated_at
 * @property Collection<int, OrderLine> $lines
 */
final class Order extends Model
{
    protected $guarded = [];

    /** @var array<string, mixed> */
    protected $attributes = ['summary' => '', 'state' => 'draft', 'title' => '', 'place' => '', 'revision' => 0,
        'held' => false, 'priority' => 0, 'on_failure' => 'go-on', 'care' => 'keep'];

    /** @var array<string, string> */
    protected $casts = ['spec' => 'array', 'base' => 'array', 'state' => OrderState::class, 'placed_at' => 'datetime',
        'revision' => 'integer', 'held' => 'boolean', 'priority' => 'integer', 'on_failure' => OnFailure::class,
        'care' => SourceCare::class,
        'cleared_at' => 'datetime'];

    /** @return HasMany<OrderLine, $this> those whose sources are on the list */
    public function lines(): HasMany
    {
        return $this->hasMany(OrderLine::class)->whereHas('source')->orderBy('position')->orderBy('id');
    }

    /** A line by its number; null where there is none. */
    public function line(int $number): ?OrderLine
    {
        return $this->lines()->find($number);
    }

    public function markedCount(): int
    {
        return $this->lines()->where('marked', true)->count();
    }

    /** @return list<int> of its lines */
    public function sourceNumbers(): array
    {
        return array_values(array_filter($this->lines()->pluck('source_id')->all(), is_int(...)));
    }

    /**
     * Whatever changes it or its lines says so here: whoever looked at it before has to look again.
     *
     * @param  array<string, mixed>  $fields  of its own that change with it
     */
    public function changed(array $fields = []): void
    {
        $this->fill($fields);
        self::query()->whereKey($this->id)->update($this->getDirty() + ['revision' => DB::raw('revision + 1')]);
        $this->refresh();
    }

    public function isDraft(): bool
    {
        return $this->state === OrderState::Draft;
    }

    public function heading(): string
    {
        return $this->title === '' ? 'Order '.$this->id : $this->title;
    }

    /** What is asked of all lines; what is not understood any more asks nothing. */
    public function asked(): OutputSpec
    {
        return self::specOf($this->spec);
    }

    /** What the recipe asked that it began with; null where it began with none. */
    public function begunWith(): ?OutputSpec
    {
        return $this->base === null ? null : self::specOf($this->base);
    }

    /** Where results lie if nothing else is said. */
    public function folder(): string
    {
        return sprintf('%s/%04d', config()->string('octavox.results'), $this->id);
    }

    /** @param  ?array<array-key, mixed>  $document */
    public static function specOf(?array $document): OutputSpec
    {
        try {
            return $document === null ? new OutputSpec : OutputSpec::fromArray($document);
        } catch (SpecInvalid $strange) {
            report($strange);

            return new OutputSpec;
        }
    }
}
