<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** A maker's process ended without a word. */
final class ChildDied extends Failure
{
    public static function ended(string $path, string $how): self
    {
        return new self(sprintf('The work on this file stopped without a word (%s), most likely because its sound is damaged in a way '
            .'the decoder did not survive; nothing was left behind, and the other files are not affected.', $how), $path);
    }

    public static function silent(string $path, int $seconds): self
    {
        return new self(sprintf('The work on this file gave no sign for %d seconds and was ended; nothing was left behind. Try again, '
            .'and check that the drive answers.', $seconds), $path);
    }

    public function code(): string
    {
        return 'child-died';
    }
}
