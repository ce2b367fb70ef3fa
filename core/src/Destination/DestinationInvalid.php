<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Failure;
use Octavox\Core\Order\SpecInvalid;

/** A document is no destination, or there is none of that name. */
final class DestinationInvalid extends Failure
{
    public static function because(SpecInvalid $wrong): self
    {
        return new self(str_replace('This specification', 'This destination', $wrong->getMessage()));
    }

    public static function unreadable(): self
    {
        return new self('This file is no destination: it holds no JSON object.');
    }

    /** @param  list<string>  $known */
    public static function unknown(string $name, array $known): self
    {
        return new self(sprintf('There is no destination called “%s”; these are there: %s. The path of a JSON file is taken as well.',
            $name,
            implode(', ', $known)));
    }

    public function code(): string
    {
        return 'destination-invalid';
    }
}
