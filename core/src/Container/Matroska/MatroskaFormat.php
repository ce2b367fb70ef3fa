<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** Matroska and WebM: RFC 9559. */
final class MatroskaFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. */
    public const WITH_PICTURES = ['mkv', 'webm'];

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 8 && $bytes->read(0, 4) === "\x1A\x45\xDF\xA3";
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new MatroskaReader($bytes))->read();
    }
}
