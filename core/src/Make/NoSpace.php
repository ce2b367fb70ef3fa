<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** The drive has less room than the result needs. */
final class NoSpace extends Failure
{
    public static function before(string $folder, int $needed, float $free): self
    {
        return new self(sprintf('The result needs %s MB but the drive has %s MB free; free some space or choose another folder. Nothing '
            .'was begun.', number_format($needed / 1e6, 1), number_format($free / 1e6, 1)), $folder);
    }

    public function code(): string
    {
        return 'no-space';
    }
}
