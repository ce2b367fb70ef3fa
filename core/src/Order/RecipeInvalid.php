<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Failure;

/** A document is no recipe, or there is none of that name. */
final class RecipeInvalid extends Failure
{
    public static function because(SpecInvalid $wrong): self
    {
        return new self(str_replace('This specification', 'This recipe', $wrong->getMessage()));
    }

    public static function unreadable(): self
    {
        return new self('This file is no recipe: it holds no JSON object.');
    }

    /** @param  list<string>  $known */
    public static function unknown(string $name, array $known): self
    {
        return new self(sprintf('There is no recipe called “%s”; these are there: %s. The path of a JSON file is taken as well.', $name,
            implode(', ', $known)));
    }

    public static function tooMany(int $most): self
    {
        return new self(sprintf('There are %d already, so no further one was kept; delete one that nobody uses.', $most));
    }

    public function code(): string
    {
        return 'recipe-invalid';
    }
}
