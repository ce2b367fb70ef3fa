<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;
use App\Orders\Values\OnFailure;
use App\Orders\Values\SpecForm;
use App\Presets\Actions\UsePreset;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;
use App\Settings\Values\SourceCare;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\RecipeInvalid;

/** Changes what a draft asks of all its lines. Only what is named is changed, so that two people can work on one draft. */
final class ChangeOrder
{
    private const LONGEST_TITLE = 120;

    public function __construct(private readonly Presets $presets, private readonly UsePreset $use) {}

    /**
     * @param  array<array-key, mixed>  $input  fields of {@see SpecForm}, and `goes`, `title`, `place`, `on_failure`, `care`, `back`
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function with(Order $order, array $input): void
    {
        if (array_key_exists('goes', $input)) {
            $this->send($order, is_string($input['goes']) ? $input['goes'] : '');
        }
        $spec = SpecForm::of($order->asked())->filled($input, $order->destination === null)->spec;
        $begun = $order->begunWith();
        if (is_string($input['back'] ?? null) && $begun !== null) {
            $spec = $spec->since($begun)->without($input['back'])->over($begun);
        }
        $text = fn (string $name, string $else, int $most): string => array_key_exists($name, $input)
            ? mb_substr(trim(mb_scrub(is_string($input[$name]) ? $input[$name] : '')), 0, $most) : $else;
        $order->changed(['spec' => $spec->toArray(), 'title' => $text('title', $order->title, self::LONGEST_TITLE),
            'place' => $text('place', $order->place, 4000),
            'on_failure' => OnFailure::tryFrom($text('on_failure', '', 20)) ?? $order->on_failure,
            'care' => SourceCare::tryFrom($text('care', '', 20)) ?? $order->care]);
    }

    /**
     * To a destination, by a recipe, or by hand with what is asked now.
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function send(Order $order, string $goes): void
    {
        $what = $this->presets->written($goes)?->what;
        $destination = $what instanceof Destination ? $what : null;
        $recipe = $what instanceof Recipe ? $what : null;
        if ($destination !== null) {
            $order->fill(['destination' => $destination->name, 'recipe' => null, 'base' => null, 'spec' => $this->own($order)->toArray()]);
            $this->use->used(PresetKind::Destination, $destination->name);
        } elseif ($recipe !== null) {
            $this->begin($order, $recipe->spec, $recipe->name);
            $this->use->used(PresetKind::Recipe, $recipe->name);
        } else {
            $order->fill(['destination' => null, 'recipe' => null, 'base' => null,
                'spec' => $order->asked()->withContainer($order->asked()->container ?? 'wav')->toArray()]);
        }
    }

    /**
     * What is not said there stays as it was said here; a recipe itself is never touched.
     *
     * @param  ?string  $recipe  name; null where what is begun with is none
     */
    public function begin(Order $order, OutputSpec $with, ?string $recipe = null): void
    {
        $order->fill(['destination' => null, 'recipe' => $recipe, 'base' => $with->toArray(),
            'spec' => $with->over($this->own($order))->toArray(), 'place' => $with->place ?? $order->place]);
    }

    /** What belongs to the order, whatever it is made by. */
    private function own(Order $order): OutputSpec
    {
        $asked = $order->asked();

        return new OutputSpec(tags: $asked->tags, name: $asked->name, ifExists: $asked->ifExists, ifRight: $asked->ifRight,
            nameSigns: $asked->nameSigns, tagSigns: $asked->tagSigns, cover: $asked->cover);
    }
}
