<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;

/** The command was written in a way that cannot be understood. */
final class Usage extends Failure
{
    public static function unknown(string $option): self
    {
        return new self(sprintf('There is no option %s here; run ./octavox help to see what there is.', $option));
    }

    public static function value(string $option, string $value, string $possible): self
    {
        return new self(sprintf('%s cannot be “%s”; it takes %s.', $option, $value, $possible));
    }

    public static function missing(string $what): self
    {
        return new self(sprintf('%s is missing; run ./octavox help to see how it is written.', $what));
    }

    public static function apart(string $option, string $why): self
    {
        return new self(sprintf('%s stands alone: %s.', $option, $why));
    }

    public function code(): string
    {
        return 'usage';
    }
}
