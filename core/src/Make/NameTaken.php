<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** A file of the wanted name is there, and somebody wanted to be asked. */
final class NameTaken extends Failure
{
    public static function at(string $path): self
    {
        return new self(sprintf('There is a file called “%s” in that place already, and nobody has said what becomes of it. Order it again '
            .'and choose: number it, replace it, or leave it out. Nothing was made, and the file stays as it is.', basename($path)), $path);
    }

    public function code(): string
    {
        return 'name-taken';
    }
}
