<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** The work was stopped from outside: the machine shuts down, memory ran out, somebody ended the process. The file is not to blame. */
final class Interrupted extends Failure
{
    public static function now(string $path): self
    {
        return new self('The work on this file was stopped from outside before it was done; nothing was left behind, and it can be '
            .'begun again.', $path);
    }

    public function code(): string
    {
        return 'interrupted';
    }
}
