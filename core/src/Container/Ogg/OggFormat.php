<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** Ogg: RFC 3533, with Vorbis, Opus (RFC 7845), FLAC (RFC 9639, 10.1) and Speex. */
final class OggFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 27 && $bytes->read(0, 4) === 'OggS';
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new OggReader($bytes))->read();
    }
}
