<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Aiff;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** AIFF and AIFC: Audio Interchange File Format 1.3 (1989) and AIFF-C draft (1991). */
final class AiffFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 12 && $bytes->read(0, 4) === 'FORM' && in_array($bytes->read(8, 4), ['AIFF', 'AIFC'], true);
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new AiffReader($bytes))->read();
    }
}
