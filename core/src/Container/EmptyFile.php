<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Failure;

/** The file has no bytes. */
final class EmptyFile extends Failure
{
    public static function at(string $path): self
    {
        return new self('The file is empty, so there is nothing to take from it; copy it again from where it came from.', $path);
    }

    public function code(): string
    {
        return 'empty-file';
    }
}
