<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Adts;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\Aac\AdtsFraming;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\Media;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** AAC with a header before every access unit: ISO/IEC 14496-3, 1.A.2.2. */
final class AdtsFormat implements Format
{
    public function recognises(ByteSource $bytes): bool
    {
        return FrameFile::begins($bytes, new AdtsFraming, self::start($bytes));
    }

    public function open(ByteSource $bytes): Media
    {
        $at = self::start($bytes);
        $tags = $at > 0 && Id3v2::isReadable($at) ? Id3v2::read($bytes->read(0, $at)) : Tags::none();

        return FrameFile::count('adts', $bytes, new AdtsFraming, $at, $bytes->size(), $tags);
    }

    private static function start(ByteSource $bytes): int
    {
        return $bytes->size() < 10 ? 0 : min($bytes->size(), Id3v2::length($bytes->read(0, 10)));
    }
}
