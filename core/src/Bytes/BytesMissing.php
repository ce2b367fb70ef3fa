<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Failure;

/** The file ends before the bytes that its own structure announces. */
final class BytesMissing extends Failure
{
    public static function at(string $name, int $offset, int $wanted, int $size): self
    {
        if ($offset < 0 || $wanted < 0) {
            return new self('The file points at a place that cannot be, before its own begin; it is damaged, so copy it again from '
                .'where it came from.', $name);
        }

        return new self(sprintf(
            'The file ends too early: %s bytes are announced at byte %s, but it has only %s; copy it again from where it came from.',
            number_format($wanted), number_format($offset), number_format($size),
        ), $name);
    }

    public function code(): string
    {
        return 'bytes-missing';
    }
}
