<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Orders\Models\Order;
use App\Presets\Values\KnownPreset;
use Illuminate\Database\Eloquent\Collection;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Order\Recipe;

/** What stands above the lines of a sheet: where it can go, and the other drafts. */
final readonly class SheetHead
{
    /**
     * @param  array<string, KnownPreset>  $destinations
     * @param  array<string, KnownPreset>  $recipes
     * @param  array<string, string>  $places
     * @param  Collection<int, Order>  $drafts  the others that stand open
     * @param  array<string, string>  $differs  what is asked otherwise than the recipe asks
     */
    public function __construct(public array $destinations, public array $recipes, public array $places, public Collection $drafts,
        public ?Destination $destination, public ?Recipe $recipe, public array $differs) {}

    /** What the choice of where it goes is set to. */
    public function goes(): string
    {
        return $this->destination !== null ? 'to:'.$this->destination->name : ($this->recipe !== null ? 'by:'.$this->recipe->name : '');
    }

    public function note(): string
    {
        return $this->destination->note ?? $this->recipe->note ?? 'chosen by hand, word by word';
    }
}
