<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Dts;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\Dts\DtsFraming;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\Media;
use Octavox\Core\Tag\Id3v2;

/** DTS core frames: ETSI TS 102 114. */
final class DtsFormat implements Format
{
    public function recognises(ByteSource $bytes): bool
    {
        return FrameFile::begins($bytes, new DtsFraming, self::start($bytes));
    }

    public function open(ByteSource $bytes): Media
    {
        $at = self::start($bytes);
        $tags = Id3v2::ofFile($bytes);

        return FrameFile::count('dts', $bytes, new DtsFraming, $at, $bytes->size(), $tags);
    }

    private static function start(ByteSource $bytes): int
    {
        return min($bytes->size(), Id3v2::end($bytes));
    }
}
