<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Latm;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\LatmFrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Tag\Id3v2;

/** AAC in LOAS frames: ISO/IEC 14496-3, 1.7.2. */
final class LatmFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return FrameFile::begins($bytes, new LatmFrameParser, self::start($bytes));
    }

    public function open(ByteSource $bytes): Demuxer
    {
        $at = self::start($bytes);
        $tags = Id3v2::ofFile($bytes);

        return FrameFile::count(new OpenedBytes('latm', $bytes, $tags), new LatmFrameParser, $at, $bytes->size());
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function start(ByteSource $bytes): int
    {
        return min($bytes->size(), Id3v2::end($bytes));
    }
}
