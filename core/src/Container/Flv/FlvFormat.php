<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flv;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** FLV: Adobe Flash Video File Format Specification 10.1, annex E. */
final class FlvFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. */
    public const WITH_PICTURES = ['flv'];

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 13 && $bytes->read(0, 4) === "FLV\x01";
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new FlvReader($bytes))->read();
    }
}
