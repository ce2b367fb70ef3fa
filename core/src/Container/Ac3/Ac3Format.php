<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ac3;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Tag\Tags;

/** AC-3 and E-AC-3 frames: ATSC A/52. */
final class Ac3Format implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return FrameFile::begins($bytes, new Ac3FrameParser, 0);
    }

    public function open(ByteSource $bytes): Demuxer
    {
        $framing = new Ac3FrameParser;
        $enhanced = str_starts_with($framing->at($bytes->read(0, 7))->identity ?? '', 'eac3');

        return FrameFile::count(new OpenedBytes($enhanced ? 'eac3' : 'ac3', $bytes, Tags::none()), $framing, 0, $bytes->size());
    }
}
