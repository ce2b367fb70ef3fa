<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Failure;

/** Nothing that can be done here makes a source acceptable to a destination. */
final class NotAccepted extends Failure
{
    public static function by(Destination $destination, Fit $fit, string $path): self
    {
        $reasons = $fit->remaining === [] ? $fit->violations : $fit->remaining;

        return new self(sprintf('“%s” does not accept this file, and nothing that is made of it would be accepted: %s', $destination->title,
            implode(' ', array_map(fn (Rejection $one): string => $one->says, $reasons))), $path);
    }

    public function code(): string
    {
        return 'not-accepted';
    }
}
