<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Failure;

/** A file cannot be opened or read. */
final class FileUnreadable extends Failure
{
    public static function missing(string $path): self
    {
        return new self('There is no such file; check the path, or whether the drive it was on is still connected.', $path);
    }

    public static function folder(string $path): self
    {
        return new self('This is a folder, not a file; choose the files in it.', $path);
    }

    public static function special(string $path): self
    {
        return new self('This is a pipe or a device, not a file; save what comes out of it as a file first.', $path);
    }

    public static function outside(string $path): self
    {
        return new self('A link in this path now leads out of the folder that was opened, so it stays closed; put the file itself there.',
            $path);
    }

    public static function denied(string $path): self
    {
        return new self('The file cannot be opened for reading; check its permissions.', $path);
    }

    public static function failed(string $path, int $offset): self
    {
        return new self(sprintf('Reading stopped at byte %s: the drive did not give the data; copy the file to another drive and try '
            .'again.', number_format($offset)), $path);
    }

    public function code(): string
    {
        return 'file-unreadable';
    }
}
