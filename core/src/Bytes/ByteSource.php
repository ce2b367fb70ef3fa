<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Bytes that can be read at any place; sizes and offsets are in bytes, 0 to 2^63-1. */
interface ByteSource
{
    /** Name for error sentences, usually the file's path. */
    public function name(): string;

    /** Number of bytes that exist. */
    public function size(): int;

    /**
     * Exactly $length bytes from $offset.
     *
     * @throws BytesMissing|FileUnreadable
     */
    public function read(int $offset, int $length): string;

    /** Number of bytes that were fetched so far, for showing that pictures are not read. */
    public function bytesRead(): int;
}
