<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** A result was to replace a file that is a source. */
final class WouldReplaceSource extends Failure
{
    public static function at(string $path): self
    {
        return new self('The result would take the place of this source, and sources are never replaced; choose another folder or name, '
            .'or have results numbered where a name is taken. Nothing was changed.', $path);
    }

    public function code(): string
    {
        return 'would-replace-source';
    }
}
