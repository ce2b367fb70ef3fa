<?php

declare(strict_types=1);

namespace App\Values;

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

    /** What several are called. */
    public function plural(): string
    {
        return $this === self::Recipe ? 'Recipes' : 'Destinations';
    }
}
