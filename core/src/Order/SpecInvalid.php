<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Failure;

/** A document is no output spec. */
final class SpecInvalid extends Failure
{
    public static function field(string $name, string $wanted): self
    {
        return new self(sprintf('This specification cannot be used: “%s” must be %s. Nothing was made.', $name, $wanted));
    }

    public static function unknown(string $name): self
    {
        return new self(sprintf('This specification cannot be used: there is no field “%s” in it. Nothing was made.', $name));
    }

    public static function version(int $version, int $known): self
    {
        return new self(sprintf('This specification is of version %d, and this Octavox knows %d; update Octavox, or write it again here.',
            $version, $known));
    }

    public static function unreadable(string $path): self
    {
        return new self('This file is no specification: it holds no JSON object.', $path);
    }

    public function code(): string
    {
        return 'spec-invalid';
    }
}
