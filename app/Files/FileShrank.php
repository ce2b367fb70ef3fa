<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Failure;

/** A file gave fewer bytes than it had a moment before. */
final class FileShrank extends Failure
{
    public static function while(string $name): self
    {
        return new self('This file went away or became shorter while it was being sent, so the archive is cut off; download it again.',
            $name);
    }

    public function code(): string
    {
        return 'file-shrank';
    }
}
