<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** ASF: Advanced Systems Format Specification 1.20.3. Most of its codecs are decoded nowhere here, but their packets can be kept. */
final class AsfFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. */
    public const WITH_PICTURES = ['asf'];

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 30 && $bytes->read(0, 16) === AsfReader::HEADER;
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new AsfReader($bytes))->read();
    }
}
