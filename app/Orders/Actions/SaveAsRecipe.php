<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;
use App\Presets\Actions\KeepPreset;
use App\Presets\Actions\UsePreset;
use App\Presets\Values\PresetKind;
use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\RecipeInvalid;

/** Keeps what a draft asks under a name, for other orders. What is about its own sources only stays behind. */
final class SaveAsRecipe
{
    public function __construct(private readonly KeepPreset $keep, private readonly UsePreset $use) {}

    /**
     * @throws RecipeInvalid where the title is no title
     * @throws Failure
     */
    public function save(Order $order, string $title): void
    {
        $title = mb_substr(trim(mb_scrub($title)), 0, 100);
        $spec = $order->asked()->withTags(null)->withCover(null)
            ->withPlace($order->place === OutputSpec::BESIDE ? OutputSpec::BESIDE : null);
        $recipe = Recipe::of(Recipe::nameOf($title), $title, '', $spec);
        $name = $this->keep->add($recipe)->name;
        $this->use->used(PresetKind::Recipe, $name);
        // To a destination it goes on going there.
        $order->changed($order->destination !== null ? [] : ['recipe' => $name, 'base' => $spec->toArray()]);
    }
}
