<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Latm;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\Aac\LatmFraming;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\Media;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** AAC in LOAS frames: ISO/IEC 14496-3, 1.7.2. */
final class LatmFormat implements Format
{
    public function recognises(ByteSource $bytes): bool
    {
        return FrameFile::begins($bytes, new LatmFraming, self::start($bytes));
    }

    public function open(ByteSource $bytes): Media
    {
        $at = self::start($bytes);
        $tags = $at > 0 && Id3v2::isReadable($at) ? Id3v2::read($bytes->read(0, $at)) : Tags::none();

        return FrameFile::count('latm', $bytes, new LatmFraming, $at, $bytes->size(), $tags);
    }

    private static function start(ByteSource $bytes): int
    {
        return $bytes->size() < 10 ? 0 : min($bytes->size(), Id3v2::length($bytes->read(0, 10)));
    }
}
