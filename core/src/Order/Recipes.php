<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** The recipes that ship with Octavox: `core/recipes`, one JSON file each. */
final class Recipes
{
    /**
     * @return array<string, Recipe> by their names, in the order of these
     *
     * @throws RecipeInvalid
     */
    public static function shipped(): array
    {
        $found = [];
        foreach (glob(dirname(__DIR__, 2).'/recipes/*.json') ?: [] as $path) {
            $one = Recipe::fromJson((string) file_get_contents($path));
            $found[$one->name] = $one;
        }

        return $found;
    }

    /**
     * @param  string  $word  the name of a shipped one, or the path of a file
     *
     * @throws RecipeInvalid
     */
    public static function of(string $word): Recipe
    {
        $shipped = self::shipped();

        return $shipped[$word] ?? (is_file($word) ? Recipe::fromJson((string) file_get_contents($word))
            : throw RecipeInvalid::unknown($word, array_keys($shipped)));
    }
}
