<?php

declare(strict_types=1);

namespace App\Presets\Values;

use Octavox\Core\Destination\Destination;
use Octavox\Core\Failure;
use Octavox\Core\Order\Recipe;

enum PresetKind: string
{
    case Recipe = 'recipe';
    case Destination = 'destination';

    /**
     * @param  array<array-key, mixed>  $document
     *
     * @throws Failure where it is none of the kind
     */
    public function read(array $document): Recipe|Destination
    {
        return $this === self::Recipe ? Recipe::fromArray($document) : Destination::fromArray($document);
    }

    /** Before the name of one where something goes to a destination, or by a recipe. */
    public function before(): string
    {
        return $this === self::Recipe ? 'by:' : 'to:';
    }

    /** @return ?array{self, string} kind and name of what is written as `to:NAME` or `by:NAME`; null of anything else */
    public static function written(string $goes): ?array
    {
        foreach (self::cases() as $kind) {
            if (str_starts_with($goes, $kind->before())) {
                return [$kind, substr($goes, strlen($kind->before()))];
            }
        }

        return null;
    }

    /** What several are called. */
    public function plural(): string
    {
        return $this === self::Recipe ? 'Recipes' : 'Destinations';
    }
}
