<?php

declare(strict_types=1);

namespace Octavox\Core;

/** For values whose parts are all public and given to the constructor under their own names. */
trait Copying
{
    /** @param  array<array-key, mixed>  $parts  instead of the own ones, under the names of the constructor */
    private function copy(array $parts): static
    {
        return (new \ReflectionClass($this))->newInstanceArgs(array_replace(get_object_vars($this), $parts));
    }
}
