<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Failure;
use Octavox\Core\Json\Documents;

/** The recipes that there are: those that ship with Octavox in `core/recipes`, one JSON file each, and those that people made. */
final class Recipes
{
    /**
     * @return array<string, Recipe> by their names, in the order of these
     *
     * @throws RecipeInvalid
     * @throws Failure
     */
    public static function shipped(): array
    {
        return self::all(null);
    }

    /**
     * @param  ?string  $own  folder of those that people made; one that cannot be read is left out
     * @return array<string, Recipe> by their names, in the order of these
     *
     * @throws RecipeInvalid
     * @throws Failure
     */
    public static function all(?string $own): array
    {
        return Documents::read(Recipe::fromJson(...), self::folder(), $own);
    }

    /**
     * @param  string  $word  the name of one, or the path of a file
     * @param  ?string  $own  folder of those that people made
     *
     * @throws RecipeInvalid
     * @throws Failure
     */
    public static function find(string $word, ?string $own = null): Recipe
    {
        $all = self::all($own);

        return $all[$word] ?? (is_file($word) ? Recipe::fromJson((string) file_get_contents($word))
            : throw RecipeInvalid::unknown($word, array_keys($all)));
    }

    private static function folder(): string
    {
        return dirname(__DIR__, 2).'/recipes';
    }
}
