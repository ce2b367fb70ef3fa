<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Failure;

/** A result cannot be written: no folder, no permission, no space. */
final class FileUnwritable extends Failure
{
    public static function create(string $path): self
    {
        return new self('The result cannot be created in this folder; check that it exists and that you may write there.', $path);
    }

    public static function full(string $path, int $position): self
    {
        return new self(sprintf('Writing stopped after %s bytes, most likely because the drive is full; free some space and try again. '
            .'Nothing was left behind.', number_format($position)), $path);
    }

    public static function outside(string $path): self
    {
        return new self('A folder on the way to this place leads out of the shelf, so nothing was written there; choose another place.',
            $path);
    }

    public function code(): string
    {
        return 'file-unwritable';
    }
}
