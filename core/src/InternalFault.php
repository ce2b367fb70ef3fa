<?php

declare(strict_types=1);

namespace Octavox\Core;

/** A mistake of our own, met while working on one file; the files beside it are not affected. */
final class InternalFault extends Failure
{
    public static function of(\Throwable $why, ?string $path = null): self
    {
        return new self('Octavox made a mistake of its own while working on this file; nothing was left behind, and the file itself is '
            .'unharmed. Please report it with the file’s facts.', $path, $why);
    }

    public function code(): string
    {
        return 'internal';
    }
}
