<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Avi;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** AVI: the RIFF form of Video for Windows, and OpenDML AVI File Format Extensions 1.02. */
final class AviFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. */
    public const WITH_PICTURES = ['avi'];

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 12 && $bytes->read(0, 4) === 'RIFF' && in_array($bytes->read(8, 4), ['AVI ', "AVI\x19"], true);
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new AviReader($bytes))->read();
    }
}
