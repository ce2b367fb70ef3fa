<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\Media;

/** ASF: Advanced Systems Format Specification 1.20.3. Its facts and tags are read; its codecs are decoded nowhere here. */
final class AsfFormat implements Format
{
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 30 && $bytes->read(0, 16) === AsfReader::HEADER;
    }

    public function open(ByteSource $bytes): Media
    {
        return (new AsfReader($bytes))->read();
    }
}
