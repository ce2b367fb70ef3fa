<?php

declare(strict_types=1);

namespace App\Presets\Queries;

use App\Presets\Models\Preset;
use App\Presets\Values\KnownPreset;
use App\Presets\Values\PresetKind;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Failure;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\RecipeInvalid;
use Octavox\Core\Order\Recipes;

/** All recipes, or all destinations, that there are: those that ship and those that people made. */
final class Presets
{
    /** @var array<string, array<string, KnownPreset>> */
    private array $found = [];

    /**
     * @return array<string, KnownPreset> by name: starred ones first, then those used last, then by title
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function all(PresetKind $kind): array
    {
        if (isset($this->found[$kind->value])) {
            return $this->found[$kind->value];
        }
        $all = array_map(fn (Recipe|Destination $one): KnownPreset => new KnownPreset($one, false),
            $kind === PresetKind::Recipe ? Recipes::shipped() : Destinations::shipped());
        foreach (Preset::query()->where('kind', $kind)->get() as $row) {
            try {
                $what = $row->document === null ? ($all[$row->name] ?? null)?->what
                    : $kind->read($row->document);
            } catch (Failure $strange) {
                report($strange);
                $what = null;
            }
            if ($what !== null) {
                $all[$row->name] = new KnownPreset($what, $row->document !== null, $row->starred, $row->used_at);
            }
        }
        uasort($all, fn (KnownPreset $one, KnownPreset $other): int => [$other->starred, $other->usedAt, mb_strtolower($one->what->title)]
            <=> [$one->starred, $one->usedAt, mb_strtolower($other->what->title)]);

        return $this->found[$kind->value] = $all;
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function recipe(?string $name): ?Recipe
    {
        $what = $name === null ? null : ($this->all(PresetKind::Recipe)[$name] ?? null)?->what;

        return $what instanceof Recipe ? $what : null;
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function destination(?string $name): ?Destination
    {
        $what = $name === null ? null : ($this->all(PresetKind::Destination)[$name] ?? null)?->what;

        return $what instanceof Destination ? $what : null;
    }

    /**
     * What is written as `to:NAME` or `by:NAME`; null where there is none of that name.
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function written(string $goes): ?KnownPreset
    {
        [$kind, $name] = PresetKind::written($goes) ?? [PresetKind::Recipe, ''];

        return $this->all($kind)[$name] ?? null;
    }

    /** What was kept has changed. */
    public function forget(): void
    {
        $this->found = [];
    }
}
