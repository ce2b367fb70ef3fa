<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Failure;

/** The structure of a file contradicts itself. */
final class BrokenStructure extends Failure
{
    public static function at(string $path, int $offset, string $what): self
    {
        return new self(sprintf('The file is damaged at byte %s: %s; copy it again from where it came from.',
            number_format($offset), $what), $path);
    }

    public function code(): string
    {
        return 'broken-structure';
    }
}
