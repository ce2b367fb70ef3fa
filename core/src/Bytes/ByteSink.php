<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Failure;

/** Where a writer puts bytes: in order, with room to go back and complete a header. */
interface ByteSink
{
    /** Number of bytes written in order so far. */
    public function position(): int;

    /** @throws BytesMissing|FileUnreadable|FileUnwritable */
    public function write(string $bytes): void;

    /**
     * Writes bytes of another file.
     *
     * @throws Failure
     */
    public function copy(Stretch $stretch): void;

    /** Spares the checksum of what comes in order: because something will be replaced, or because what is written has one of its own. */
    /** Leaves so many bytes empty that are replaced later; they take no room on the drive before that. */
    public function reserve(int $bytes): void;

    public function needsNoChecksum(): void;

    /**
     * Replaces bytes that were written before; never lengthens.
     *
     * @throws BytesMissing|FileUnreadable|FileUnwritable
     */
    public function replace(int $offset, string $bytes): void;
}
