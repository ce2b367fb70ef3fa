<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Failure;

/** Nobody waits for the result any more. */
final class Abandoned extends Failure
{
    public static function now(): self
    {
        return new self('The work was cancelled; nothing was left behind.');
    }

    public function code(): string
    {
        return 'abandoned';
    }
}
