<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Dts;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Dts\DtsFrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Tag\Id3v2;

/** DTS core frames: ETSI TS 102 114. */
final class DtsFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return FrameFile::begins($bytes, new DtsFrameParser, self::start($bytes));
    }

    public function open(ByteSource $bytes): Demuxer
    {
        $at = self::start($bytes);
        $tags = Id3v2::ofFile($bytes);

        return FrameFile::count(new OpenedBytes('dts', $bytes, $tags), new DtsFrameParser, $at, $bytes->size());
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
