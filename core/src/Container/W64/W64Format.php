<?php

declare(strict_types=1);

namespace Octavox\Core\Container\W64;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** Wave64: the chunks of WAV with names of 16 and lengths of 8 bytes. */
final class W64Format implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 40 && $bytes->read(0, 16) === W64Reader::RIFF && $bytes->read(24, 16) === W64Reader::WAVE;
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new W64Reader($bytes))->read();
    }
}
