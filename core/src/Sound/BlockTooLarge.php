<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Failure;

/** Something announces more samples at once than any recording has in one block. */
final class BlockTooLarge extends Failure
{
    public static function of(int $samples): self
    {
        return new self(sprintf('One block of this file announces %s samples, more than any recording holds at once, so it is damaged; '
            .'copy it again from where it came from.', number_format($samples)));
    }

    public function code(): string
    {
        return 'block-too-large';
    }
}
