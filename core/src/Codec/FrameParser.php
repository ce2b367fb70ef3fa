<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;

/** How the frames of a codec that needs no container are told apart. */
interface FrameParser
{
    /** Bytes that {@see self::at()} needs to see. */
    public function headBytes(): int;

    /** The byte with which every frame begins. */
    public function firstByte(): string;

    /** What the header at the start of $head says; null where no frame begins there. */
    public function at(string $head): ?FrameInfo;

    /** What the whole frame tells of the track. */
    public function audio(string $frame): AudioFormat;

    /** What of the whole frame the decoder gets. */
    public function payload(string $frame): string;
}
