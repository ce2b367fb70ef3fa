<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Failure;

/** A source holds less sound than it announces. */
final class SoundMissing extends Failure
{
    public static function seconds(string $path, float $missing): self
    {
        if ($missing < 0) {
            return new self(sprintf('There are %.3f s more of sound than the file announces, so that its times do not fit each other; '
                .'copy the file again from where it came from.', -$missing), $path);
        }

        return new self(sprintf('The sound ends %.2f s earlier than the file announces, so the result would not fit the picture; copy '
            .'the file again from where it came from.', $missing), $path);
    }

    public function code(): string
    {
        return 'sound-missing';
    }
}
