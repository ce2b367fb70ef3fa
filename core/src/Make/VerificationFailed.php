<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** A finished result, read back, is not what it should be; it is thrown away. */
final class VerificationFailed extends Failure
{
    public static function because(string $path, string $difference): self
    {
        return new self(sprintf('The result was read back and is not right (%s), so it was thrown away; try again, and check the drive '
            .'if it happens twice.', $difference), $path);
    }

    public function code(): string
    {
        return 'verification-failed';
    }
}
