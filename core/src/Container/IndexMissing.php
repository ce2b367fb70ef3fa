<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Failure;

/** A recording without the index that says where its sound is. */
final class IndexMissing extends Failure
{
    public static function at(string $path): self
    {
        return new self('The recording was never finished: its index is missing, so nothing says where its sound lies; play it on the device that made it, which often completes it, and copy it again.', $path);
    }

    public function code(): string
    {
        return 'index-missing';
    }
}
