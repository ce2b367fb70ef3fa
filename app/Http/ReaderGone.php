<?php

declare(strict_types=1);

namespace App\Http;

use Octavox\Core\Failure;

/** Whoever asked for an answer reads it no more, or next to nothing of it. */
final class ReaderGone extends Failure
{
    public static function from(string $name): self
    {
        return new self('Whoever downloads this reads it no more, so it is not sent any further; download it again.', $name);
    }

    public function code(): string
    {
        return 'reader-gone';
    }
}
